import { decimalText, micro, moneyText, priceText, times } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper, type Paper } from '../paper/index.js';
import type { OrderDto, OrderLineDto } from './orders.dto.js';

const ROW = 34;

/** A quote or the confirmation of an order on A4: goods with prices, and their sum. */
export async function pricedPaperPdf(order: OrderDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const title = order.state === 'quote' ? 'Quote' : 'Order confirmation';
  const paper = newPaper(`${title} ${order.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font('bold').fontSize(18).text(title, left, 42);
  const to = [order.customer, order.addressLine, `${order.city} ${order.postcode}`.trim()].filter(Boolean).join(', ');
  paper
    .font('regular')
    .fontSize(10)
    .text(to, left, 68, { width: wide - 170 });
  await drawBarcode(paper, order.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      [order.state === 'quote' ? 'Quote' : 'Order', order.code],
      ['Your reference', order.channelRef === order.code ? '' : order.channelRef],
      order.quotedUntil ? ['Holds until', order.quotedUntil] : ['From', order.site],
      ['Lines', String(order.lines.length)],
    ],
    100,
  );
  let y = 158;
  for (const line of order.lines.filter((l) => l.quantity > 0 && l.kit === null && !l.along)) {
    if (y > paper.page.height - 96) {
      paper.addPage();
      y = 42;
    }
    drawLine(paper, line, left, wide, y);
    y += ROW;
  }
  paper
    .font('bold')
    .fontSize(12)
    .text(moneyText(micro(order.worth)), left + wide - 200, y + 4, { width: 200, align: 'right' });
  return finish(paper);
}

function drawLine(paper: Paper, line: OrderLineDto, left: number, wide: number, y: number): void {
  const sum = decimalText(times(micro(line.price), line.quantity));
  const pack = line.pack ?? line.unit ?? 'piece';
  paper
    .font('bold')
    .fontSize(10)
    .text(line.name ?? line.channelSku, left, y, { width: wide - 260, height: 13, ellipsis: true });
  paper
    .font('mono')
    .fontSize(8)
    .text(line.sku ?? line.channelSku, left, y + 14);
  paper
    .font('regular')
    .fontSize(10)
    .text(countOf(line.quantity, { name: pack, plural: line.factor === 1 ? (line.units ?? 'pieces') : `${pack}s` }), left + wide - 250, y, {
      width: 110,
      align: 'right',
    })
    .text(priceText(micro(line.price)), left + wide - 140, y, { width: 60, align: 'right' })
    .text(moneyText(micro(sum)), left + wide - 80, y, { width: 80, align: 'right' });
  paper
    .moveTo(left, y + ROW - 6)
    .lineTo(left + wide, y + ROW - 6)
    .lineWidth(0.4)
    .stroke();
}
