import type { LabelDesign, LabelElement, Media } from '@vectrum/core/labels';

const roll = (widthMm: number, heightMm: number): Media => ({
  kind: 'roll',
  widthMm,
  heightMm,
  columns: 1,
  rows: 1,
  pageWidthMm: widthMm,
  pageHeightMm: heightMm,
  leftMm: 0,
  topMm: 0,
  gapXMm: 0,
  gapYMm: 0,
});
const A4 = { pageWidthMm: 210, pageHeightMm: 297 };
type At = readonly [xMm: number, yMm: number, wMm: number, hMm: number];
const at = (id: string, [xMm, yMm, wMm, hMm]: At) => ({ id, xMm, yMm, wMm, hMm });
const text = (
  id: string,
  place: At,
  words: string,
  more: { bold?: boolean; mono?: boolean; align?: 'left' | 'centre' | 'right' } = {},
): LabelElement => ({
  ...at(id, place),
  kind: 'text',
  text: words,
  align: more.align ?? 'left',
  bold: more.bold ?? false,
  mono: more.mono ?? false,
});
const code = (
  id: string,
  place: At,
  value: string,
  symbology: 'code-128' | 'gs1-128' | 'ean' | 'data-matrix' | 'qr',
  withText = false,
): LabelElement => ({
  ...at(id, place),
  kind: 'barcode',
  value,
  symbology,
  withText,
});

/** What a new house can print at once; each can be changed or copied in the editor. */
export const STANDARD_DESIGNS: readonly LabelDesign[] = [
  {
    name: 'Shelf label, 100 × 50 roll',
    subject: 'place',
    media: roll(100, 50),
    elements: [
      { ...at('arrow', [3, 4, 13, 18]), kind: 'arrow', direction: 'by-level' },
      text('code', [19, 2, 79, 24], '{code}', { bold: true, mono: true }),
      code('bars', [2, 27, 78, 17], '{code}', 'code-128'),
      code('square', [81, 27, 17, 17], '{code}', 'data-matrix'),
      text('site', [3, 45, 60, 4], '{site} {zone}'),
    ],
  },
  {
    name: 'Shelf labels, A4, 2 × 5',
    subject: 'place',
    media: { kind: 'sheet', widthMm: 99, heightMm: 55, columns: 2, rows: 5, ...A4, leftMm: 6, topMm: 11, gapXMm: 0, gapYMm: 0 },
    elements: [
      { ...at('arrow', [4, 5, 13, 18]), kind: 'arrow', direction: 'by-level' },
      text('code', [20, 3, 76, 24], '{code}', { bold: true, mono: true }),
      code('bars', [3, 29, 93, 17], '{code}', 'code-128'),
      text('site', [4, 48, 60, 4], '{site} {zone}'),
    ],
  },
  {
    name: 'Tote and cart label, 100 × 70 roll',
    subject: 'place',
    media: roll(100, 70),
    elements: [
      text('code', [4, 3, 92, 30], '{code}', { bold: true, mono: true, align: 'centre' }),
      code('bars', [4, 35, 92, 24], '{code}', 'code-128'),
      text('kind', [4, 61, 92, 6], '{kind}, {site}', { align: 'centre' }),
    ],
  },
  {
    name: 'Item label, 57 × 32 roll',
    subject: 'item',
    media: roll(57, 32),
    elements: [
      text('name', [2, 1.5, 53, 5], '{name}', { bold: true }),
      code('bars', [2, 8, 53, 17], '{barcode}', 'ean', true),
      text('sku', [2, 26.5, 34, 4], '{sku}', { mono: true }),
      text('home', [37, 26.5, 18, 4], '{home}', { mono: true, align: 'right' }),
    ],
  },
  {
    name: 'Item labels, A4, 3 × 8',
    subject: 'item',
    media: { kind: 'sheet', widthMm: 64, heightMm: 34, columns: 3, rows: 8, ...A4, leftMm: 7, topMm: 12, gapXMm: 2, gapYMm: 0 },
    elements: [
      text('name', [2, 2, 60, 5], '{name}', { bold: true }),
      code('bars', [2, 8, 60, 17], '{barcode}', 'ean', true),
      text('sku', [2, 27, 40, 4], '{sku}', { mono: true }),
      text('home', [42, 27, 20, 4], '{home}', { mono: true, align: 'right' }),
    ],
  },
  {
    name: 'Pack label with lot and date, 100 × 70 roll',
    subject: 'item',
    media: roll(100, 70),
    elements: [
      text('name', [3, 2, 94, 8], '{name}', { bold: true }),
      text('pack', [3, 11, 55, 6], '{pack}'),
      text('sku', [60, 11, 37, 6], '{sku}', { mono: true, align: 'right' }),
      text('lot', [3, 19, 60, 6], 'Lot {lot}', { bold: true }),
      text('expires', [3, 26, 60, 6], 'Until {expires}', { bold: true }),
      code('square', [70, 18, 27, 24], '{gs1}', 'data-matrix'),
      code('bars', [3, 45, 94, 21], '{gs1}', 'gs1-128', true),
    ],
  },
  {
    name: 'Badge, 86 × 54 roll',
    subject: 'badge',
    media: roll(86, 54),
    elements: [
      text('company', [4, 3, 78, 5], '{company}'),
      text('name', [4, 10, 78, 11], '{name}', { bold: true }),
      text('duty', [4, 22, 78, 5], '{duty}'),
      code('bars', [4, 30, 78, 19], '{badge}', 'code-128', true),
    ],
  },
  {
    name: 'Document and command codes, 57 × 32 roll',
    subject: 'document',
    media: roll(57, 32),
    elements: [
      text('code', [2, 1.5, 53, 7], '{code}', { bold: true, mono: true, align: 'centre' }),
      code('bars', [2, 10, 53, 14], '{code}', 'code-128'),
      text('title', [2, 25.5, 53, 4.5], '{title}', { align: 'centre' }),
    ],
  },
];
