import bwipjs from 'bwip-js';
import PDFDocument from 'pdfkit';
import { barcodeOf, fill, placeLabels, type LabelDesign, type LabelElement, type LabelRecord } from '@vectrum/core/labels';
import { finish, fonts, type Paper } from '../paper/index.js';

const PT = 72 / 25.4;
const LEAST_POINTS = 4;
/** A dot of the usual label printer (203 an inch): modules are whole dots wide, so that no bar is drawn wider than its neighbour. */
const DOT = 72 / 203;
const onDot = (at: number) => Math.round(at / DOT) * DOT;
const whole = (unit: number) => (unit >= DOT ? Math.floor(unit / DOT + 1e-6) * DOT : unit);
/** Blank modules that a reader wants on either side. */
const QUIET = 10;
const QUIET_SQUARE = 2;
const TEXT_MM = 3;

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** Labels as a PDF, to scale: one page a label on a roll, or sheets filled from `start`. Throws RangeError beyond what one print may hold. */
export async function labelsPdf(design: LabelDesign, records: readonly LabelRecord[], copies = 1, start = 1): Promise<Buffer> {
  const { media } = design;
  const size: [number, number] =
    media.kind === 'roll' ? [media.widthMm * PT, media.heightMm * PT] : [media.pageWidthMm * PT, media.pageHeightMm * PT];
  const paper = fonts(new PDFDocument({ autoFirstPage: false, size, margin: 0, info: { Title: design.name, Creator: 'Vectrum' } }));
  for (const page of placeLabels(media, records.length, copies, start)) {
    paper.addPage({ size, margin: 0 });
    for (const label of page) {
      const record = records[label.record];
      if (record) for (const element of design.elements) drawElement(paper, element, record, label.xMm, label.yMm);
    }
  }
  return finish(paper);
}

function drawElement(paper: Paper, e: LabelElement, record: LabelRecord, leftMm: number, topMm: number): void {
  const box = { x: (leftMm + e.xMm) * PT, y: (topMm + e.yMm) * PT, w: e.wMm * PT, h: e.hMm * PT };
  switch (e.kind) {
    case 'text':
      return drawText(
        paper,
        fill(e.text, record),
        box,
        e.mono ? (e.bold ? 'mono-bold' : 'mono') : e.bold ? 'bold' : 'regular',
        e.align === 'centre' ? 'center' : e.align,
      );
    case 'barcode':
      return drawBarcode(paper, e, fill(e.value, record), box);
    case 'arrow':
      return drawArrow(paper, e.direction === 'by-level' ? (record['level'] === '1' ? 'down' : 'up') : e.direction, box);
    case 'box':
      paper.rect(box.x, box.y, box.w, box.h).lineWidth(1).stroke('black');
  }
}

/** Text on one line, as large as its box allows. */
function drawText(paper: Paper, text: string, box: Box, font: string, align: 'left' | 'center' | 'right'): void {
  if (text.trim() === '') return;
  paper.font(font);
  const wide = paper.fontSize(100).widthOfString(text) / 100;
  const size = Math.max(LEAST_POINTS, Math.min(box.h / 1.2, box.w / wide));
  paper.fontSize(size).fillColor('black');
  const line = paper.currentLineHeight();
  paper.text(text, box.x, box.y + Math.max(0, (box.h - line) / 2), {
    width: box.w + 1,
    height: line,
    align,
    lineBreak: false,
    ellipsis: true,
  });
}

/** Bars and squares as filled rectangles, sharp at every size. */
function drawBarcode(paper: Paper, e: Extract<LabelElement, { kind: 'barcode' }>, value: string, box: Box): void {
  const drawn = barcodeOf(e.symbology, value);
  if (!drawn) return;
  let raw: { sbs?: number[]; pixs?: number[]; pixx?: number; pixy?: number }[];
  try {
    raw = bwipjs.raw({ bcid: drawn.writer, text: drawn.text } as never);
  } catch {
    // What the symbology cannot hold is still read as Code 128, or shown as text where even that is impossible.
    return /^[\x20-\x7e]+$/.test(value) && drawn.writer !== 'code128'
      ? drawBarcode(paper, { ...e, symbology: 'code-128' }, value, box)
      : drawText(paper, value, box, 'mono', 'center');
  }
  const symbol = raw[0] ?? {};
  const textH = e.withText ? Math.min(TEXT_MM * PT, box.h / 3) : 0;
  const area = { ...box, h: box.h - textH };
  paper.fillColor('black');
  if (symbol.pixs && symbol.pixx && symbol.pixy) drawSquares(paper, symbol.pixs, symbol.pixx, symbol.pixy, area);
  else if (symbol.sbs) drawBars(paper, symbol.sbs, area);
  if (textH > 0) drawText(paper, value, { x: box.x, y: box.y + box.h - textH, w: box.w, h: textH }, 'mono', 'center');
}

function drawBars(paper: Paper, sbs: readonly number[], box: Box): void {
  const modules = sbs.reduce((sum, n) => sum + n, 0) + 2 * QUIET;
  const unit = whole(box.w / modules);
  let x = onDot(box.x + (box.w - (modules - 2 * QUIET) * unit) / 2);
  sbs.forEach((width, i) => {
    if (i % 2 === 0 && width > 0) paper.rect(x, box.y, width * unit, box.h);
    x += width * unit;
  });
  paper.fill();
}

function drawSquares(paper: Paper, pixs: readonly number[], columns: number, rows: number, box: Box): void {
  const unit = whole(Math.min(box.w / (columns + 2 * QUIET_SQUARE), box.h / (rows + 2 * QUIET_SQUARE)));
  const left = onDot(box.x + (box.w - columns * unit) / 2);
  const top = onDot(box.y + (box.h - rows * unit) / 2);
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) if (pixs[r * columns + c]) paper.rect(left + c * unit, top + r * unit, unit * 1.01, unit * 1.01);
  }
  paper.fill();
}

function drawArrow(paper: Paper, direction: 'up' | 'down', { x, y, w, h }: Box): void {
  const [tip, base] = direction === 'up' ? [y, y + h] : [y + h, y];
  const neck = tip + (base - tip) * 0.5;
  paper
    .polygon(
      [x + w / 2, tip],
      [x + w, neck],
      [x + w * 0.68, neck],
      [x + w * 0.68, base],
      [x + w * 0.32, base],
      [x + w * 0.32, neck],
      [x, neck],
    )
    .fill('black');
}
