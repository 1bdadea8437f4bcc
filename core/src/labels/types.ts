/** What a label is about: each subject has its own fields. */
export type LabelSubject = 'place' | 'item' | 'badge' | 'document';

/** What labels are printed on. Millimetres. A roll has one label a page. */
export interface Media {
  kind: 'roll' | 'sheet';
  widthMm: number;
  heightMm: number;
  /** Sheets only: labels across and down, the page, and where the first label begins. */
  columns: number;
  rows: number;
  pageWidthMm: number;
  pageHeightMm: number;
  leftMm: number;
  topMm: number;
  gapXMm: number;
  gapYMm: number;
}

interface Box {
  id: string;
  xMm: number;
  yMm: number;
  wMm: number;
  hMm: number;
}

export type Symbology = 'code-128' | 'gs1-128' | 'ean' | 'data-matrix' | 'qr';

/** What stands on a label. `text` and `value` may hold fields in braces: "Bay {bay}". */
export type LabelElement =
  | (Box & { kind: 'text'; text: string; align: 'left' | 'centre' | 'right'; bold: boolean; mono: boolean })
  | (Box & { kind: 'barcode'; value: string; symbology: Symbology; withText: boolean })
  | (Box & { kind: 'arrow'; direction: 'up' | 'down' | 'by-level' })
  | (Box & { kind: 'box' });

export interface LabelDesign {
  name: string;
  subject: LabelSubject;
  media: Media;
  elements: LabelElement[];
}

/** The values of one label, by field. */
export type LabelRecord = Readonly<Record<string, string>>;
