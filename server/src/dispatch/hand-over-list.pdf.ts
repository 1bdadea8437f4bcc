import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper, type Paper } from '../paper/index.js';

/** What a driver has taken. */
export interface HandOverList {
  code: string;
  carrier: string;
  site: string;
  /** Date and time as the site's clocks show them. */
  on: string;
  at: string;
  /** Who took them, and what they drew with a pen in a field of 600 by 200; null where it is to be signed on paper. */
  driver: string | null;
  signature: string | null;
  weightG: number;
  parcels: readonly { code: string; customer: string; place: string; service: string; weightG: number; tracking: string }[];
}

const ROW = 20;
/** The pen's field of 600 by 200, made as high as there is room above the line. */
const PEN_SCALE = 0.28;
const TOP = 42;
const COLUMNS = [0, 80, 270, 350, 404];

/** The list that a driver signs, on A4: every parcel with its tracking number, and a line for name and signature. */
export async function handOverListPdf(list: HandOverList, from: Letterhead): Promise<Buffer> {
  const paper = newPaper(`Hand-over ${list.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font('bold').fontSize(18).text(`Handed to ${list.carrier}`, left, TOP);
  await drawBarcode(paper, list.code, left + wide - 150, TOP, 150, 30);
  drawCells(
    paper,
    [
      ['Hand-over', list.code],
      ['From', list.site],
      ['On', list.on],
      ['At', list.at],
      ['Parcels', String(list.parcels.length)],
      ['Weight', kilos(list.weightG)],
    ],
    100,
  );
  let y = row(paper, 156, 'bold', ['Parcel', 'To', 'Service', 'Weight', 'Tracking']);
  for (const p of list.parcels) {
    if (y > paper.page.height - 70) {
      paper.addPage();
      y = TOP;
    }
    y = row(paper, y, 'regular', [p.code, `${p.customer}, ${p.place}`, p.service, kilos(p.weightG), p.tracking]);
  }
  if (y > paper.page.height - 130) {
    paper.addPage();
    y = TOP;
  }
  for (const [i, caption] of ['Driver, in capitals', 'Signature'].entries()) {
    const x = left + (i * wide) / 2;
    paper
      .moveTo(x, y + 60)
      .lineTo(x + wide / 2 - 20, y + 60)
      .lineWidth(0.8)
      .stroke();
    paper
      .font('regular')
      .fontSize(8)
      .text(caption, x, y + 64);
  }
  if (list.driver)
    paper
      .font('regular')
      .fontSize(12)
      .text(list.driver, left, y + 42, { width: wide / 2 - 20, height: 16, ellipsis: true });
  if (list.signature) {
    paper
      .save()
      .translate(left + wide / 2, y + 2)
      .scale(PEN_SCALE)
      .path(list.signature)
      .lineWidth(4)
      .lineCap('round')
      .stroke()
      .restore();
  }
  return finish(paper);
}

const kilos = (grams: number) => `${(grams / 1000).toFixed(2)} kg`;

function row(paper: Paper, y: number, font: string, cells: readonly string[]): number {
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font(font).fontSize(8.5);
  cells.forEach((text, i) => {
    const from = COLUMNS[i] ?? 0;
    paper.text(text, left + from, y, { width: (COLUMNS[i + 1] ?? wide) - from - 6, height: 11, ellipsis: true });
  });
  paper
    .moveTo(left, y + 14)
    .lineTo(left + wide, y + 14)
    .lineWidth(0.4)
    .stroke();
  return y + ROW;
}
