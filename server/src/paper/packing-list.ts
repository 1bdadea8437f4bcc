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

/** What one parcel holds, and what of its order it does not. */
export interface PackedParcel {
  code: string;
  order: string;
  customer: string;
  addressLine: string;
  city: string;
  postcode: string;
  channelRef: string;
  number: number;
  /** How many parcels of the order there are by now. */
  parcels: number;
  tracking: string | null;
  goods: readonly GoodsLine[];
  /** What is in no parcel yet, or in another one. */
  follows: readonly GoodsLine[];
  /** Inserts that do not come this time. */
  leftOut: readonly GoodsLine[];
}

/** All that left for an order so far. */
export interface DeliveryNote {
  parcels: readonly PackedParcel[];
  /** The day on which the last of it left. */
  leftOn: string;
}

/** Goods on a paper: how many, and what else is said of them. */
export interface GoodsLine {
  name: string;
  code: string;
  quantity: number;
  unit: string;
  units: string;
  /** Lot, expiry or serial number; where else they are. */
  note: string;
}

const ROW = 34;
const TOP = 42;

/** A packing list from the top of the page that is open, without prices; its barcode opens the order wherever it is scanned. */
export async function drawPackingList(paper: Paper, order: PackedOrder, from: Letterhead): Promise<void> {
  await drawHead(paper, 'Packing list', order.code, order, from);
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
  const lines = order.lines.filter((l) => l.wanted > 0);
  drawGoods(
    paper,
    lines.map((l) => ({
      name: l.name ?? l.channelSku,
      code: l.sku ?? l.channelSku,
      quantity: l.wanted,
      unit: l.unit ?? 'piece',
      units: l.units ?? 'pieces',
      note: '',
    })),
    158,
  );
}

/** The packing list of one parcel: what is in it, with lots and serial numbers, and what follows. Its barcode opens the parcel. */
export async function drawParcelList(paper: Paper, parcel: PackedParcel, from: Letterhead): Promise<void> {
  await drawHead(paper, 'In this parcel', parcel.code, parcel, from);
  drawCells(
    paper,
    [
      ['Order', parcel.order],
      ['Your reference', parcel.channelRef],
      ['Parcel', `${parcel.number} of ${parcel.parcels}`],
      ['Tracking', parcel.tracking ?? ''],
    ],
    100,
  );
  let y = drawGoods(paper, parcel.goods, 158);
  const missing = [...parcel.follows, ...parcel.leftOut];
  if (missing.length === 0) return;
  if (y > paper.page.height - 120) {
    paper.addPage();
    y = TOP;
  }
  paper
    .font('bold')
    .fontSize(12)
    .text('Not in this parcel', paper.page.margins.left, y + 8);
  drawGoods(paper, missing, y + 30);
}

/** What left for an order, parcel by parcel, with a line for whoever takes it in: without prices. Its barcode opens the order. */
export async function drawDeliveryNote(paper: Paper, note: DeliveryNote, from: Letterhead): Promise<void> {
  const [first] = note.parcels;
  if (!first) return;
  await drawHead(paper, 'Delivery note', first.order, first, from);
  drawCells(
    paper,
    [
      ['Order', first.order],
      ['Your reference', first.channelRef],
      ['Left', note.leftOn],
      ['Parcels', String(note.parcels.length)],
    ],
    100,
  );
  const left = paper.page.margins.left;
  let y = 158;
  const room = (high: number) => {
    if (y <= paper.page.height - high) return;
    paper.addPage();
    y = TOP;
  };
  for (const parcel of note.parcels) {
    room(120);
    const head = [`Parcel ${parcel.code}`, parcel.tracking ?? ''].filter(Boolean).join('   ');
    paper.font('bold').fontSize(12).text(head, left, y);
    y = drawGoods(paper, parcel.goods, y + 22) + 6;
  }
  room(110);
  for (const [at, says] of [
    [0, 'Received in good order'],
    [210, 'Name'],
    [360, 'Day'],
  ] as const)
    paper
      .moveTo(left + at, y + 50)
      .lineTo(left + at + 130, y + 50)
      .lineWidth(0.6)
      .stroke()
      .font('regular')
      .fontSize(8)
      .text(says, left + at, y + 54);
}

async function drawHead(
  paper: Paper,
  title: string,
  code: string,
  to: Pick<PackedOrder, 'customer' | 'addressLine' | 'city' | 'postcode'>,
  from: Letterhead,
): Promise<void> {
  drawLetterhead(paper, from);
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  paper.font('bold').fontSize(18).text(title, left, TOP);
  paper
    .font('regular')
    .fontSize(10)
    .text(`${to.customer}, ${to.addressLine}, ${to.city} ${to.postcode}`, left, 68, { width: wide - 170 });
  await drawBarcode(paper, code, paper.page.width - left - 150, TOP, 150, 30);
}

/** Rows of goods from `y` down, over as many pages as they need; returns where the next would stand. */
function drawGoods(paper: Paper, lines: readonly GoodsLine[], from: number): number {
  const left = paper.page.margins.left;
  const wide = paper.page.width - 2 * left;
  let y = from;
  for (const line of lines) {
    if (y > paper.page.height - 80) {
      paper.addPage();
      y = TOP;
    }
    paper
      .font('bold')
      .fontSize(10)
      .text(line.name, left, y, { width: wide - 160, height: 13, ellipsis: true });
    paper.text(countOf(line.quantity, { name: line.unit, plural: line.units }), left + wide - 150, y, { width: 150, align: 'right' });
    paper
      .font('mono')
      .fontSize(8)
      .text(line.code, left, y + 14);
    if (line.note)
      paper
        .font('regular')
        .fontSize(8)
        .text(line.note, left + wide - 250, y + 14, { width: 250, align: 'right', height: 10, ellipsis: true });
    paper
      .moveTo(left, y + 28)
      .lineTo(left + wide, y + 28)
      .lineWidth(0.4)
      .stroke();
    y += ROW;
  }
  return y;
}
