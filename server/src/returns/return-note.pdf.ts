import { dayIn } from '../platform/index.js';
import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper } from '../paper/index.js';
import type { SupplierReturnDto } from './returns.dto.js';

const ROW = 30;

/** The note that goes back with goods, on A4. It holds no prices, since it lies in the parcel. */
export async function returnNotePdf(note: SupplierReturnDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const paper = newPaper(`Return ${note.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  paper.font('bold').fontSize(18).text('Goods returned', left, 42);
  paper.font('regular').fontSize(10).text(note.supplier, left, 68);
  await drawBarcode(paper, note.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      ['Return', note.code],
      ['From', note.site],
      ['Sent', dayIn(from.timeZone ?? 'UTC', new Date(note.sentAt))],
      ['Why', note.reason.slice(0, 40)],
    ],
    100,
  );
  let y = 160;
  for (const line of note.goods) {
    if (y + ROW > paper.page.height - 60) {
      paper.addPage();
      y = 42;
    }
    const about = [line.sku, line.lot, line.condition === 'good' ? '' : line.condition, line.order ?? ''];
    paper.font('bold').fontSize(10).text(line.name, left, y, { width: 300, height: 13, ellipsis: true });
    paper.text(line.words, left + 310, y, { width: 180, align: 'right' });
    paper
      .font('mono')
      .fontSize(8)
      .text(about.filter(Boolean).join('  '), left, y + 14);
    y += ROW;
  }
  return finish(paper);
}
