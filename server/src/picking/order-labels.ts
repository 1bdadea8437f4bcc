import { drawBarcode, type Paper } from '../paper/index.js';
import type { RoundSheetDto } from './sheet.dto.js';

const ACROSS = 2;
const DOWN = 7;
const POINTS_A_MM = 72 / 25.4;
const WIDE = 99 * POINTS_A_MM;
const HIGH = 38 * POINTS_A_MM;

/** A label for each order of rounds, for its tote: fourteen on a sheet of A4, from the top of a new page. */
export async function drawOrderLabels(paper: Paper, rounds: readonly RoundSheetDto[]): Promise<void> {
  const labels = rounds.flatMap((r) => r.orders.map((order, i) => ({ order, of: `${r.code}, ${i + 1} of ${r.orders.length}` })));
  for (const [i, { order, of }] of labels.entries()) {
    const at = i % (ACROSS * DOWN);
    if (at === 0) paper.addPage({ size: 'A4', margin: 0 });
    const x = (paper.page.width - ACROSS * WIDE) / 2 + (at % ACROSS) * WIDE + 12;
    const y = (paper.page.height - DOWN * HIGH) / 2 + Math.floor(at / ACROSS) * HIGH + 10;
    const width = WIDE - 24;
    paper.font('bold').fontSize(20).text(order.code, x, y, { width, lineBreak: false });
    paper
      .font('regular')
      .fontSize(8)
      .text(of, x, y + 4, { width, align: 'right', lineBreak: false });
    paper
      .font('regular')
      .fontSize(11)
      .text(order.customer, x, y + 26, { width, height: 14, ellipsis: true });
    await drawBarcode(paper, order.code, x, y + 46, 170, 34);
  }
}
