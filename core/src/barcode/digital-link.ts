import { formOf } from './application-identifiers.js';
import type { Gs1Error } from './value.js';

/** Identifiers that may stand first in a Digital Link path. */
const PRIMARY = new Set('00 01 253 255 401 402 410 411 412 413 414 415 416 417 8003 8004 8006 8010 8013 8017 8018 8030'.split(' '));

/** Words that early editions of the standard allowed in place of the numbers. */
const WORDS: Readonly<Record<string, string>> = {
  gtin: '01',
  itip: '8006',
  gmn: '8013',
  cpid: '8010',
  gln: '414',
  party: '417',
  gsrnp: '8017',
  gsrn: '8018',
  gcn: '255',
  sscc: '00',
  gdti: '253',
  ginc: '401',
  gsin: '402',
  grai: '8003',
  giai: '8004',
  cpv: '22',
  lot: '10',
  ser: '21',
};

/** Whether a text is a web address, and so may be a Digital Link. */
export function isLink(text: string): boolean {
  return /^https?:\/\//i.test(text);
}

function decode(text: string): string | undefined {
  try {
    return decodeURIComponent(text);
  } catch {
    return undefined;
  }
}

/** GTINs were written in 8, 12 or 13 digits too; they are padded to 14. */
function padded(ai: string, value: string): string {
  return ai === '01' && /^(\d{8}|\d{12}|\d{13})$/.test(value) ? value.padStart(14, '0') : value;
}

const aiOf = (segment: string) => (Object.hasOwn(WORDS, segment) ? WORDS[segment] : segment) ?? segment;

/**
 * The identifiers and values of a GS1 Digital Link address, unchecked, in reading order: the path from its primary
 * key on, then the numeric members of the query. Source: GS1 Digital Link Standard: URI Syntax. O(length).
 */
export function pairsOfLink(address: string): [string, string][] | Gs1Error {
  const parts = /^https?:\/\/([^/?#]+)([^?#]*)(?:\?([^#]*))?/i.exec(address);
  if (!parts) return 'notGs1';
  const segments = (parts[2] ?? '').split('/').slice(1);
  if (segments.at(-1) === '') segments.pop();
  const start = primaryAt(segments);
  if (start < 0) return 'notGs1';
  const raw: [string, string][] = [];
  for (let i = start; i < segments.length; i += 2) {
    raw.push([aiOf(segments[i] ?? ''), segments[i + 1] ?? '']);
  }
  for (const member of (parts[3] ?? '').split(/[&;]/)) {
    const cut = member.indexOf('=');
    if (cut > 0 && /^\d+$/.test(member.slice(0, cut))) raw.push([member.slice(0, cut), member.slice(cut + 1)]);
  }
  const pairs: [string, string][] = [];
  for (const [ai, coded] of raw) {
    const value = decode(coded);
    if (value === undefined) return 'charset';
    pairs.push([ai, padded(ai, value)]);
  }
  return pairs;
}

/** Where the primary key stands: the last place from which the path reads as identifier and value in turn. */
function primaryAt(segments: readonly string[]): number {
  for (let i = segments.length - 2; i >= 0; i -= 2) {
    const ai = aiOf(segments[i] ?? '');
    if (PRIMARY.has(ai)) return i;
    if (!/^\d{2,4}$/.test(ai) && !formOf(ai)) return -1;
  }
  return -1;
}
