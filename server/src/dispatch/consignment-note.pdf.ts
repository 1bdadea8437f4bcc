import { drawBarcode, drawLetterhead, finish, type Letterhead, newPaper, type Paper } from '../paper/index.js';

/** What goes to one consignee with one driver. */
export interface Consignment {
  code: string;
  order: string;
  carrier: string;
  /** The carrier's own number of the booked collection; null where it booked none. */
  booking: string | null;
  site: string;
  at: string;
  driver: string | null;
  /** What the driver drew with a pen in a field of 600 by 200. */
  signature: string | null;
  /** Name and address, line by line. */
  to: readonly string[];
  parcels: readonly { code: string; carton: string; goods: string; weightG: number; litres: number | null }[];
}

const TOP = 42;
const ROW = 24;
const COLUMNS = [0, 92, 160, 372, 440];
const PEN_SCALE = 0.2;

/** A consignment note on A4 for each consignee: what the carrier has taken over, from whom, for whom, and three signatures. */
export async function consignmentNotePdf(consignments: readonly Consignment[], from: Letterhead): Promise<Buffer> {
  const paper = newPaper(`Consignment notes ${consignments[0]?.code ?? ''}`);
  for (const [i, one] of consignments.entries()) {
    if (i > 0) paper.addPage();
    await note(paper, one, from);
  }
  return finish(paper);
}

async function note(paper: Paper, one: Consignment, from: Letterhead): Promise<void> {
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  drawLetterhead(paper, from);
  paper.font('bold').fontSize(18).text('Consignment note', left, TOP);
  await drawBarcode(paper, one.order, left + wide - 150, TOP, 150, 30);
  const half = wide / 2;
  block(paper, left, 100, half - 12, 'Consignee', one.to);
  block(paper, left + half, 100, half, 'Taken over', [
    `${one.carrier}${one.booking ? `, booking ${one.booking}` : ''}`,
    `at ${one.site}, ${one.at}`,
    `hand-over ${one.code}, order ${one.order}`,
  ]);
  let y = row(paper, 200, 'bold', ['Package', 'Packing', 'Goods', 'Gross', 'Volume']);
  for (const p of one.parcels) {
    if (y > paper.page.height - 180) {
      paper.addPage();
      y = TOP;
    }
    y = row(paper, y, 'regular', [
      p.code,
      p.carton,
      p.goods,
      kilos(p.weightG),
      p.litres === null ? '' : `${(p.litres / 1000).toFixed(3)} m³`,
    ]);
  }
  const weight = one.parcels.reduce((sum, p) => sum + p.weightG, 0);
  row(paper, y, 'bold', [`${one.parcels.length} ${one.parcels.length === 1 ? 'package' : 'packages'}`, '', '', kilos(weight), '']);
  signatures(paper, one);
}

const kilos = (grams: number) => `${(grams / 1000).toFixed(2)} kg`;

function block(paper: Paper, x: number, y: number, width: number, caption: string, lines: readonly string[]): void {
  paper.font('regular').fontSize(8).text(caption, x, y);
  lines.forEach((line, i) => paper.font(i === 0 ? 'bold' : 'regular').fontSize(11).text(line, x, y + 12 + i * 16, { width, height: 15, ellipsis: true })); // prettier-ignore
}

function row(paper: Paper, y: number, font: string, cells: readonly string[]): number {
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font(font).fontSize(8.5);
  cells.forEach((text, i) => {
    const from = COLUMNS[i] ?? 0;
    paper.text(text, left + from, y, { width: (COLUMNS[i + 1] ?? wide) - from - 6, height: 20, ellipsis: true });
  });
  paper
    .moveTo(left, y + 21)
    .lineTo(left + wide, y + 21)
    .lineWidth(0.4)
    .stroke();
  return y + ROW;
}

function signatures(paper: Paper, one: Consignment): void {
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  const y = paper.page.height - 110;
  ['Sender', `Carrier${one.driver ? `: ${one.driver}` : ''}`, 'Consignee, with date'].forEach((caption, i) => {
    const x = left + (i * wide) / 3;
    paper
      .moveTo(x, y)
      .lineTo(x + wide / 3 - 16, y)
      .lineWidth(0.8)
      .stroke();
    paper
      .font('regular')
      .fontSize(8)
      .text(caption, x, y + 4, { width: wide / 3 - 16, height: 11, ellipsis: true });
  });
  if (!one.signature) return;
  paper
    .save()
    .translate(left + wide / 3, y - 44)
    .scale(PEN_SCALE)
    .path(one.signature)
    .lineWidth(5)
    .lineCap('round')
    .stroke()
    .restore();
}
