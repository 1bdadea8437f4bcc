import { unknownFields } from './fields.js';
import type { LabelDesign, Media } from './types.js';

/** The most that one print may hold. */
export const MOST_LABELS = 5_000;
const SLACK_MM = 0.05;
const sizeFits = (mm: number) => Number.isFinite(mm) && mm >= 10 && mm <= 420;

/** What keeps a medium from being printed on, in words; null where nothing does. */
export function faultOfMedia(m: Media): string | null {
  if (!sizeFits(m.widthMm) || !sizeFits(m.heightMm)) return 'A label is 10 to 420 mm wide and high';
  if (m.kind === 'roll') return null;
  if (!sizeFits(m.pageWidthMm) || !sizeFits(m.pageHeightMm)) return 'A sheet is 10 to 420 mm wide and high';
  if (![m.columns, m.rows].every((n) => Number.isInteger(n) && n >= 1 && n <= 40)) return 'A sheet has 1 to 40 labels across and down';
  if ([m.leftMm, m.topMm, m.gapXMm, m.gapYMm].some((mm) => !Number.isFinite(mm) || mm < 0)) return 'Margins and gaps are 0 mm or more';
  const wide = m.leftMm + m.columns * m.widthMm + (m.columns - 1) * m.gapXMm;
  const high = m.topMm + m.rows * m.heightMm + (m.rows - 1) * m.gapYMm;
  if (wide > m.pageWidthMm + SLACK_MM)
    return `${m.columns} labels across need ${Math.ceil(wide)} mm; the sheet is ${m.pageWidthMm} mm wide`;
  if (high > m.pageHeightMm + SLACK_MM) return `${m.rows} labels down need ${Math.ceil(high)} mm; the sheet is ${m.pageHeightMm} mm high`;
  return null;
}

/** What keeps a design from being printed, in words; empty where nothing does. */
export function faultsOf(design: LabelDesign): string[] {
  const faults: string[] = [];
  const media = faultOfMedia(design.media);
  if (media) faults.push(media);
  const { widthMm, heightMm } = design.media;
  design.elements.forEach((e, i) => {
    const named = `Element ${i + 1}`;
    if (![e.xMm, e.yMm, e.wMm, e.hMm].every(Number.isFinite) || e.wMm < 1 || e.hMm < 1) faults.push(`${named} is smaller than 1 mm`);
    else if (e.xMm < -SLACK_MM || e.yMm < -SLACK_MM || e.xMm + e.wMm > widthMm + SLACK_MM || e.yMm + e.hMm > heightMm + SLACK_MM) {
      faults.push(`${named} stands over the edge of the label`);
    }
    const text = e.kind === 'text' ? e.text : e.kind === 'barcode' ? e.value : '';
    for (const key of unknownFields(text, design.subject)) faults.push(`${named} asks for {${key}}, which a ${design.subject} has not`);
    if (e.kind === 'barcode' && e.value.trim() === '') faults.push(`${named} is a barcode of nothing`);
  });
  if (design.elements.length === 0) faults.push('Nothing stands on the label yet');
  return faults;
}

export interface PlacedLabel {
  /** Which of the records. */
  record: number;
  xMm: number;
  yMm: number;
}

/**
 * Where each label goes, page by page. `start` is the first free place of the first sheet, counted from 1 along the rows
 * (rolls pass over it); each record is printed `copies` times, one after the other. Throws RangeError beyond MOST_LABELS.
 */
export function placeLabels(media: Media, records: number, copies: number, start: number): PlacedLabel[][] {
  const count = records * copies;
  if (!Number.isInteger(count) || count < 0 || copies < 1) throw new RangeError('Copies are a whole number of at least 1');
  if (count > MOST_LABELS) throw new RangeError(`That would be ${count} labels. Print ${MOST_LABELS} at most at once`);
  const per = media.kind === 'roll' ? 1 : media.columns * media.rows;
  const first = media.kind === 'roll' ? 0 : start - 1;
  if (!Number.isInteger(first) || first < 0 || first >= per) throw new RangeError(`The first place of a sheet is 1 to ${per}`);
  const pages: PlacedLabel[][] = [];
  for (let i = 0; i < count; i++) {
    const slot = (first + i) % per;
    const page = (pages[Math.floor((first + i) / per)] ??= []);
    const [column, row] = media.kind === 'roll' ? [0, 0] : [slot % media.columns, Math.floor(slot / media.columns)];
    page.push({
      record: Math.floor(i / copies),
      xMm: media.kind === 'roll' ? 0 : media.leftMm + column * (media.widthMm + media.gapXMm),
      yMm: media.kind === 'roll' ? 0 : media.topMm + row * (media.heightMm + media.gapYMm),
    });
  }
  return pages;
}
