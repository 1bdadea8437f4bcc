import { codeKey } from '@vectrum/core/scan';
import { dayIn } from '../platform/index.js';

/** The key under which a code is kept, at any site: the day decides only the century of a date beside it, never the code. */
export const keyOfCode = (text: string): string => codeKey(text, dayIn('UTC', new Date()));
