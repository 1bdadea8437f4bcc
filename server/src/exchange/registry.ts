import { Injectable } from '@nestjs/common';
import { notFound } from '../platform/index.js';
import type { Shape } from './shape.js';

/** Every kind of file that can be taken in and given out, in the order in which an empty house needs them. */
const IN_ORDER = [
  'sites',
  'plan',
  'zones',
  'walls',
  'places',
  'items',
  'packs',
  'barcodes',
  'parts',
  'policies',
  'suppliers',
  'contacts',
  'prices',
  'breaks',
  'carriers',
  'lanes',
  'services',
  'boxes',
  'customers',
  'addresses',
  'customer-prices',
  'channels',
  'channel-sites',
  'listings',
  'stock',
  'demand',
  'buying-rules',
  'payments',
];

/** The kinds of files that modules have registered. */
@Injectable()
export class Shapes {
  private readonly shapes = new Map<string, Shape>();

  register(...shapes: readonly Shape[]): void {
    for (const shape of shapes) {
      if (!IN_ORDER.includes(shape.kind)) throw new Error(`Say where a file of ${shape.kind} comes in the order of an empty house`);
      this.shapes.set(shape.kind, shape);
    }
  }

  get all(): readonly Shape[] {
    return IN_ORDER.flatMap((kind) => this.shapes.get(kind) ?? []);
  }

  of(kind: string): Shape {
    const shape = this.shapes.get(kind);
    if (!shape) throw notFound(`A file of ${kind.slice(0, 20)}`);
    return shape;
  }
}
