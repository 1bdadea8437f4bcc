import {
  drawBarcode,
  drawCells,
  drawLetterhead,
  drawPackingList,
  finish,
  type Letterhead,
  newPaper,
  type PackedOrder,
  type Paper,
} from '../paper/index.js';
import { drawOrderLabels } from './order-labels.js';
import type { RoundSheetDto } from './sheet.dto.js';

const ROW = 40;

/** What of rounds is printed; the orders are those whose packing lists go with it. */
export interface RoundPrint {
  rounds: readonly RoundSheetDto[];
  lists: boolean;
  slips: readonly PackedOrder[];
  labels: boolean;
}

/**
 * Rounds on paper, in one print: a list of each for the day on which the network does not come, with stops in the order of the walk, a
 * barcode for the bin and room for what was taken; the packing lists of their orders; a label for the tote of each. The round's barcode
 * opens it on any phone.
 */
export async function roundPapersPdf(
  { rounds, lists, slips, labels }: RoundPrint,
  from: Letterhead = { name: '', address: '' },
): Promise<Buffer> {
  const paper = newPaper(rounds.length === 1 ? `Round ${rounds[0]?.code ?? ''}` : `${rounds.length} rounds`, 'no page yet');
  for (const round of lists ? rounds : []) {
    paper.addPage();
    await draw(paper, round, from);
  }
  for (const order of slips) {
    paper.addPage();
    await drawPackingList(paper, order, from);
  }
  if (labels) await drawOrderLabels(paper, rounds);
  return finish(paper);
}

async function draw(paper: Paper, round: RoundSheetDto, from: Letterhead): Promise<void> {
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  const several = round.holders.length > 1;
  paper.font('bold').fontSize(18).text(`Round ${round.code}`, left, 42);
  await drawBarcode(paper, round.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      ['Site', round.site],
      ['Orders', String(round.orders.length)],
      ['Stops', String(round.stops.length)],
      ['Walk', round.metres > 0 ? `${round.metres} m` : 'not drawn'],
      ['Picked by', round.picker ?? round.sentTo ?? ''],
    ],
    100,
  );
  let y = 152;
  for (const [i, o] of round.holders.entries()) {
    paper
      .font('bold')
      .fontSize(10)
      .text(`${several ? `${i + 1}  ` : ''}${o.code}`, left, y, { width: 90, lineBreak: false });
    paper.font('regular').text(o.customer, left + 95, y, { width: wide - 250, height: 13, ellipsis: true });
    paper.text(`Tote ${o.totes.join(', ') || '____________'}`, left + wide - 150, y, { width: 150, align: 'right' });
    y += 15;
    if (o.note) {
      paper.fontSize(9).text(o.note, left + 95, y, { width: wide - 95 });
      y = paper.y + 3;
    }
  }
  y += 8;
  for (const stop of round.stops) {
    if (y > paper.page.height - 60) {
      paper.addPage();
      y = 42;
    }
    const at = round.holders.findIndex((o) => o.code === stop.order) + 1;
    await drawBarcode(paper, stop.place, left, y, 96, 20);
    paper
      .font('bold')
      .fontSize(12)
      .text(stop.place, left + 106, y, { width: 74, lineBreak: false });
    if (several)
      paper
        .font('regular')
        .fontSize(9)
        .text(`order ${at}`, left + 106, y + 17, { width: 74, lineBreak: false });
    paper
      .font('bold')
      .fontSize(10)
      .text(stop.item, left + 186, y, { width: wide - 340, height: 13, ellipsis: true });
    paper
      .font('mono')
      .fontSize(8)
      .text([stop.sku, stop.lot].filter(Boolean).join('   '), left + 186, y + 15, {
        width: wide - 340,
        lineBreak: false,
      });
    paper
      .font('bold')
      .fontSize(11)
      .text(stop.wanted, left + wide - 150, y, { width: 92, align: 'right' });
    // Room for the number that was taken, where it is not all of it.
    paper
      .rect(left + wide - 48, y - 2, 48, 24)
      .lineWidth(0.8)
      .stroke();
    paper
      .moveTo(left, y + ROW - 7)
      .lineTo(left + wide, y + ROW - 7)
      .lineWidth(0.4)
      .stroke();
    y += ROW;
  }
}
