import { countOf } from '@vectrum/core/quantity';
import { drawBarcode, drawCells, drawLetterhead, type Letterhead, type Paper } from './paper.js';

/** What a packing list says of an order. */
export interface PackedOrder {
  code: string;
  customer: string;
  addressLine: string;
  city: string;
  postcode: string;
  channelRef: string;
  site: string;
  parcels: readonly unknown[];
  lines: readonly {
    name: string | null;
    sku: string | null;
    channelSku: string;
    wanted: number;
    unit: string | null;
    units: string | null;
  }[];
}

/** A packing list from the top of the page that is open, without prices; its barcode opens the order wherever it is scanned. */
export async function drawPackingList(paper: Paper, order: PackedOrder, from: Letterhead): Promise<void> {
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font('bold').fontSize(18).text('Packing list', left, 42);
  paper
    .font('regular')
    .fontSize(10)
    .text(`${order.customer}, ${order.addressLine}, ${order.city} ${order.postcode}`, left, 68, {
      width: wide - 170,
    });
  await drawBarcode(paper, order.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      ['Order', order.code],
      ['Your reference', order.channelRef],
      ['From', order.site],
      ['Parcels', String(Math.max(1, order.parcels.length))],
    ],
    100,
  );
  let y = 158;
  for (const line of order.lines.filter((l) => l.wanted > 0)) {
    if (y > paper.page.height - 80) {
      paper.addPage();
      y = 42;
    }
    paper
      .font('bold')
      .fontSize(10)
      .text(line.name ?? line.channelSku, left, y, { width: wide - 160, height: 13, ellipsis: true });
    paper.text(countOf(line.wanted, { name: line.unit ?? 'piece', plural: line.units ?? 'pieces' }), left + wide - 150, y, {
      width: 150,
      align: 'right',
    });
    paper
      .font('mono')
      .fontSize(8)
      .text(line.sku ?? line.channelSku, left, y + 14);
    paper
      .moveTo(left, y + 28)
      .lineTo(left + wide, y + 28)
      .lineWidth(0.4)
      .stroke();
    y += 34;
  }
}
