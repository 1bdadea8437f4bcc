import { notFound } from '../platform/index.js';
import type { FileKind } from './files/write.js';

/** A kind of file by its ending; any other is not found. */
export function fileKind(name: string): FileKind {
  if (name === 'csv' || name === 'xlsx' || name === 'json') return name;
  throw notFound(`A file of kind ${name.slice(0, 10)}`);
}
