import { RETURN_REASONS } from '@vectrum/core/customer-returns';
import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper } from '../paper/index.js';
import { dayIn } from '../platform/index.js';
import type { CustomerReturnDto } from './customer-returns.dto.js';

const ROW = 34;

/** The paper that a customer puts into the parcel, on A4: its code tells the dock whose it is. */
export async function returnSlipPdf(of: CustomerReturnDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const paper = newPaper(`Return ${of.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  paper.font('bold').fontSize(18).text('Goods come back', left, 42);
  paper.font('regular').fontSize(10).text(of.customer, left, 68, { width: 260, height: 13, ellipsis: true });
  await drawBarcode(paper, of.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      ['Return', of.code],
      ['Order', of.order ?? ''],
      ['Announced', dayIn(from.timeZone ?? 'UTC', new Date(of.announcedAt))],
      ['Wished', of.wish ?? 'nothing said'],
    ],
    100,
  );
  let y = 160;
  for (const line of of.goodsBack.filter((l) => l.announced !== '' || l.back !== '')) {
    if (y + ROW > paper.page.height - 90) {
      paper.addPage();
      y = 42;
    }
    paper.font('bold').fontSize(10).text(line.name, left, y, { width: 300, height: 13, ellipsis: true });
    paper.text(line.announced || line.back, left + 310, y, { width: 180, align: 'right' });
    const why = [line.sku, line.reason ? RETURN_REASONS[line.reason].says : '', line.note].filter(Boolean).join('  ');
    paper
      .font('regular')
      .fontSize(8)
      .text(why, left, y + 14, { width: 490, height: 11, ellipsis: true });
    y += ROW;
  }
  const send =
    from.address === ''
      ? 'Put this paper into the parcel.'
      : `Put this paper into the parcel, and send it to ${from.name}, ${from.address}.`;
  paper
    .font('regular')
    .fontSize(10)
    .text(send, left, y + 10, { width: 490 });
  return finish(paper);
}
