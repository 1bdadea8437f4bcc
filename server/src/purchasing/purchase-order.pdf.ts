import { micro, moneyText, priceText } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper, type Paper } from '../paper/index.js';
import type { PurchaseOrderDto, PurchaseOrderLineDto } from './purchasing.dto.js';

const ROW = 46;

/** A purchase order on A4: its barcode at the head and one beside each line, for the dock to scan. */
export async function purchaseOrderPdf(order: PurchaseOrderDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const paper = newPaper(`Purchase order ${order.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  paper.font('bold').fontSize(18).text('Purchase order', left, 42);
  paper.font('regular').fontSize(10).text(order.supplier, left, 68);
  if (order.siteAddress)
    paper.fontSize(8).text(`To be delivered to ${order.site}, ${order.siteAddress}`, left, 83, {
      width: paper.page.width - 2 * left,
      height: 10,
      ellipsis: true,
    });
  await drawBarcode(paper, order.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      ['Order', order.code],
      ['Deliver to', order.site],
      ['Expected', order.expectedOn ?? 'as soon as you can'],
      ['Goods', order.goods ? moneyText(micro(order.goods), order.currency) : '–'],
    ],
    100,
  );
  let y = head(paper, 156);
  for (const line of order.lines) {
    if (y + ROW > paper.page.height - 60) {
      paper.addPage();
      y = head(paper, 42);
    }
    await row(paper, line, y, order.currency);
    y += ROW;
  }
  if (order.note)
    paper
      .font('regular')
      .fontSize(10)
      .text(order.note, left, y + 14, { width: paper.page.width - 2 * left });
  return finish(paper);
}

function head(paper: Paper, y: number): number {
  const left = paper.page.margins.left;
  paper.font('regular').fontSize(8);
  paper
    .text('Line', left, y)
    .text('Goods', left + 30, y)
    .text('Quantity', left + 215, y, { width: 90, align: 'right' })
    .text('Price', left + 310, y, { width: 66, align: 'right' });
  paper
    .moveTo(left, y + 13)
    .lineTo(paper.page.width - left, y + 13)
    .lineWidth(1.2)
    .stroke();
  return y + 18;
}

async function row(paper: Paper, line: PurchaseOrderLineDto, y: number, currency: string): Promise<void> {
  const left = paper.page.margins.left;
  paper
    .font('bold')
    .fontSize(10)
    .text(String(line.line), left, y + 4);
  paper.text(line.name, left + 30, y + 4, { width: 185, height: 13, ellipsis: true });
  paper
    .font('mono')
    .fontSize(8)
    .text(line.sku, left + 30, y + 19);
  paper
    .font('bold')
    .fontSize(10)
    .text(countOf(line.packs, { name: line.pack, plural: line.packPlural }), left + 215, y + 4, {
      width: 90,
      align: 'right',
    });
  paper
    .font('regular')
    .fontSize(8)
    .text(line.factor === 1 ? '' : countOf(line.ordered, { name: line.unit, plural: line.units }), left + 215, y + 19, {
      width: 90,
      align: 'right',
    });
  if (line.price) {
    paper.fontSize(10).text(moneyText(micro(line.price), currency), left + 310, y + 4, { width: 66, align: 'right' });
    paper.fontSize(8).text(line.factor === 1 ? '' : `${priceText(micro(line.priceEach ?? '0'))} each`, left + 310, y + 19, {
      width: 66,
      align: 'right',
    });
  }
  await drawBarcode(paper, line.sku, paper.page.width - left - 122, y, 122, 22);
  paper
    .moveTo(left, y + ROW - 6)
    .lineTo(paper.page.width - left, y + ROW - 6)
    .lineWidth(0.4)
    .stroke();
}
