import { createRequire } from 'node:module';
import bwipjs from 'bwip-js';
import PDFDocument from 'pdfkit';

const require = createRequire(import.meta.url);
const REGULAR = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans.ttf');
const BOLD = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf');
const MONO = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSansMono.ttf');
const MONO_BOLD = require.resolve('dejavu-fonts-ttf/ttf/DejaVuSansMono-Bold.ttf');

export type Paper = PDFKit.PDFDocument;

/** An A4 page, ready to be written on; or a document whose pages are all still to be added. */
export function newPaper(title: string, begin: 'first page' | 'no page yet' = 'first page'): Paper {
  const paper = new PDFDocument({
    size: 'A4',
    margin: 42,
    autoFirstPage: begin === 'first page',
    info: { Title: title, Creator: 'Vectrum' },
  });
  return fonts(paper);
}

/** Gives a document the house's fonts, which cover all of Europe's letters. */
export function fonts(paper: Paper): Paper {
  return paper
    .registerFont('regular', REGULAR)
    .registerFont('bold', BOLD)
    .registerFont('mono', MONO)
    .registerFont('mono-bold', MONO_BOLD)
    .font('regular');
}

/** Who a paper comes from. */
export interface Letterhead {
  name: string;
  address: string;
  /** The time zone in which papers are dated; the house's own where none is said. */
  timeZone?: string;
  /** The company's mark; absent or null where it has none. */
  mark?: { png: Uint8Array; width: number; height: number } | null;
}

/** How high a mark stands at the head of a page, in points, and how wide it may be. */
const MARK_HIGH = 22;
const MARK_WIDE = 90;

/** The company at the head of the page that is open; nothing where it has not said its name. */
export function drawLetterhead(paper: Paper, from: Letterhead): void {
  const left = paper.page.margins.left + drawMark(paper, from.mark ?? null);
  if (from.name === '') return;
  paper
    .font('bold')
    .fontSize(8)
    .text(from.name, left, 22, { lineBreak: false, continued: from.address !== '' });
  if (from.address !== '') paper.font('regular').text(`   ${from.address}`, { lineBreak: false });
}

/** The company's mark in the corner; returns how far what stands beside it moves. */
function drawMark(paper: Paper, mark: NonNullable<Letterhead['mark']> | null): number {
  if (!mark) return 0;
  const scale = Math.min(MARK_HIGH / mark.height, MARK_WIDE / mark.width);
  const [width, height] = [mark.width * scale, mark.height * scale];
  paper.image(Buffer.from(mark.png), paper.page.margins.left, 26 - height / 2, { width, height });
  return width + 8;
}

/** Waits for the last byte. */
export function finish(paper: Paper): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    paper.on('data', (part: Buffer) => parts.push(part));
    paper.on('end', () => resolve(Buffer.concat(parts)));
    paper.on('error', reject);
    paper.end();
  });
}

/** A Code 128 as a picture of black bars, three pixels a module. */
export function barcodePng(text: string, heightMm = 10): Promise<Buffer> {
  return bwipjs.toBuffer({ bcid: 'code128', text, scale: 3, height: heightMm, includetext: false });
}

/** Draws a barcode with its text beneath. Widths in points. */
export async function drawBarcode(paper: Paper, text: string, x: number, y: number, width: number, height: number): Promise<void> {
  paper.image(await barcodePng(text, (height / 72) * 25.4), x, y, { width, height });
  paper
    .font('mono')
    .fontSize(8)
    .text(text, x, y + height + 2, { width, align: 'center' })
    .font('regular');
}

/** A ruled row of captions over values, like a waybill's cells. */
export function drawCells(paper: Paper, cells: readonly (readonly [string, string])[], y: number): void {
  const left = paper.page.margins.left;
  const width = (paper.page.width - left * 2) / cells.length;
  paper
    .rect(left, y, width * cells.length, 38)
    .lineWidth(1.2)
    .stroke();
  cells.forEach(([caption, value], i) => {
    if (i > 0)
      paper
        .moveTo(left + i * width, y)
        .lineTo(left + i * width, y + 38)
        .lineWidth(0.6)
        .stroke();
    paper
      .font('regular')
      .fontSize(7.5)
      .text(caption, left + i * width + 6, y + 5, { width: width - 12, lineBreak: false });
    paper
      .font('bold')
      .fontSize(9.5)
      .text(value, left + i * width + 6, y + 18, { width: width - 10, height: 13, ellipsis: true });
  });
}
