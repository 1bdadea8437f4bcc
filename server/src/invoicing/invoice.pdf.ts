import { micro, moneyText, priceText } from '@vectrum/core/money';
import { drawBarcode, drawCells, drawLetterhead, finish, type Letterhead, newPaper, type Paper } from '../paper/index.js';
import type { InvoiceDto, InvoiceLineDto } from './invoicing.dto.js';

const ROW = 32;
const FOOT = 150;

/** What stands on the paper: a proforma says what an order will come to, and is no document of the books. */
export type InvoicePaper = Omit<InvoiceDto, 'kind'> & { kind: InvoiceDto['kind'] | 'proforma' };

const TITLES: Readonly<Record<InvoicePaper['kind'], string>> = { invoice: 'Invoice', credit: 'Credit note', proforma: 'Proforma invoice' };

/** An invoice or credit note on A4: what was delivered of which order, taxes by rate, and until when it is paid. */
export async function invoicePdf(invoice: InvoicePaper, from: Letterhead = { name: '', address: '' }): Promise<Buffer> {
  const title = TITLES[invoice.kind];
  const paper = newPaper(`${title} ${invoice.code}`);
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font('bold').fontSize(18).text(title, left, 42);
  const to = [
    invoice.name,
    invoice.addressLine,
    `${invoice.postcode} ${invoice.city}`.trim(),
    invoice.country,
    invoice.taxNumber && `Tax number ${invoice.taxNumber}`,
  ];
  paper
    .font('regular')
    .fontSize(10)
    .text(to.filter(Boolean).join('\n'), left, 68, { width: wide - 170, height: 70 });
  await drawBarcode(paper, invoice.code, paper.page.width - left - 150, 42, 150, 30);
  drawCells(
    paper,
    [
      [invoice.kind === 'proforma' ? 'Order' : title, invoice.code],
      ['Of', invoice.issuedOn],
      aboutCell(invoice),
      ['Amount', moneyText(micro(invoice.gross), invoice.currency)],
    ],
    148,
  );
  let y = 206;
  for (const line of invoice.lines) {
    if (y > paper.page.height - 96) {
      paper.addPage();
      y = 42;
    }
    drawLine(paper, line, invoice.currency, left, wide, y);
    y += ROW;
  }
  if (y > paper.page.height - FOOT) {
    paper.addPage();
    y = 42;
  }
  drawFoot(paper, invoice, left, wide, y + 6);
  return finish(paper);
}

function aboutCell(invoice: InvoicePaper): [string, string] {
  switch (invoice.kind) {
    case 'invoice':
      return ['To be paid by', invoice.dueOn];
    case 'credit':
      return ['For invoice', invoice.credits ?? ''];
    case 'proforma':
      return ['For', invoice.account ?? invoice.name.slice(0, 24)];
  }
}

function drawLine(paper: Paper, line: InvoiceLineDto, currency: string, left: number, wide: number, y: number): void {
  const off = Number(line.discountPercent) > 0 ? `less ${line.discountPercent} %` : '';
  const about = [line.sku, line.order ? `order ${line.order}` : '', line.taxCode ? `${line.taxCode} ${line.taxPercent} %` : '', off];
  paper
    .font('bold')
    .fontSize(10)
    .text(line.name, left, y, { width: wide - 260, height: 13, ellipsis: true });
  paper
    .font('mono')
    .fontSize(7.5)
    .text(about.filter(Boolean).join('   '), left, y + 14, { width: wide - 100, height: 10, ellipsis: true });
  paper
    .font('regular')
    .fontSize(10)
    .text(line.words, left + wide - 250, y, { width: 110, align: 'right', height: 13, ellipsis: true })
    .text(line.pack === '' ? '' : priceText(micro(line.price)), left + wide - 140, y, { width: 60, align: 'right' })
    .text(moneyText(micro(line.amount), currency), left + wide - 80, y, { width: 80, align: 'right' });
  paper
    .moveTo(left, y + ROW - 6)
    .lineTo(left + wide, y + ROW - 6)
    .lineWidth(0.4)
    .stroke();
}

function drawFoot(paper: Paper, invoice: InvoicePaper, left: number, wide: number, top: number): void {
  const money = (amount: string) => moneyText(micro(amount), invoice.currency);
  const rows: [string, string][] = [
    ['Without tax', money(invoice.net)],
    ...invoice.taxes.map((t): [string, string] => [`${t.taxCode || 'Tax'} ${t.percent} % on ${money(t.net)}`, money(t.tax)]),
  ];
  let y = top;
  for (const [says, amount] of rows) {
    paper
      .font('regular')
      .fontSize(9.5)
      .text(says, left + wide - 320, y, { width: 220, align: 'right' })
      .text(amount, left + wide - 90, y, { width: 90, align: 'right' });
    y += 15;
  }
  paper
    .font('bold')
    .fontSize(12)
    .text(invoice.kind === 'credit' ? 'Credited' : 'To be paid', left + wide - 320, y + 4, { width: 220, align: 'right' })
    .text(money(invoice.gross), left + wide - 90, y + 4, { width: 90, align: 'right' });
  const proforma = invoice.kind === 'proforma' ? 'This is no invoice: it says what the order comes to.' : '';
  const says = [proforma, invoice.pricesHoldTax ? 'Prices hold the tax.' : '', invoice.note].filter(Boolean).join(' ');
  if (says)
    paper
      .font('regular')
      .fontSize(9.5)
      .text(says, left, y + 28, { width: wide });
}
