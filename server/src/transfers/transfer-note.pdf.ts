import { dayIn } from '../platform/index.js';
import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper } from '../paper/index.js';
import type { TransferDto } from './transfers.dto.js';

const ROW = 30;

/** The paper that goes with goods to another site, on A4: its code opens the transfer on the phone of whoever takes them in. */
export async function transferNotePdf(t: TransferDto, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const paper = newPaper(`Transfer ${t.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const zone = from.timeZone ?? 'UTC';
  paper.font('bold').fontSize(18).text('Goods between sites', left, 42);
  paper.font('regular').fontSize(10).text(`${t.fromSite} to ${t.toSite}`, left, 68);
  await drawBarcode(paper, t.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      ['Transfer', t.code],
      ['Sent', t.sentAt ? dayIn(zone, new Date(t.sentAt)) : 'not yet'],
      ['By', [t.carrier, t.tracking].filter(Boolean).join(' ').slice(0, 40)],
      ...(t.parcels.length > 0 ? [['Parcels', String(t.parcels.length)] as const] : []),
      ['Note', t.note.slice(0, 40)],
    ],
    100,
  );
  const goods =
    t.goods.length > 0
      ? t.goods.map((g) => ({ sku: g.sku, item: g.item, lot: g.lot, units: g.sent }))
      : t.lineRows.map((l) => ({ sku: l.sku, item: l.item, lot: null, units: l.units }));
  let y = 160;
  for (const line of goods) {
    if (y + ROW > paper.page.height - 60) {
      paper.addPage();
      y = 42;
    }
    paper.font('bold').fontSize(10).text(line.item, left, y, { width: 300, height: 13, ellipsis: true });
    paper.text(String(line.units), left + 310, y, { width: 180, align: 'right' });
    paper
      .font('mono')
      .fontSize(8)
      .text([line.sku, line.lot].filter(Boolean).join('  '), left, y + 14);
    y += ROW;
  }
  return finish(paper);
}
