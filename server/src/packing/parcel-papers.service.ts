import { Injectable, type OnModuleInit } from '@nestjs/common';
import { countOf } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import type { GoodsLine, PackedParcel } from '../paper/index.js';
import { dayIn, mustBeAt, notFound, num, one, PAPER, type Person, rows, task, Work } from '../platform/index.js';
import { Papers } from '../printing/index.js';
import { SettingsService } from '../settings/index.js';
import type { deliveryNotePdf } from './delivery-note.pdf.js';
import type { parcelListPdf } from './parcel-list.pdf.js';

const PARCEL_LIST = task<typeof parcelListPdf>('packing/parcelListPdf', ...PAPER);

const DELIVERY_NOTE = task<typeof deliveryNotePdf>('packing/deliveryNotePdf', ...PAPER);

interface Head {
  id: number;
  order_id: number;
  code: string;
  site_id: number;
  order: string;
  customer: string;
  addressLine: string;
  city: string;
  postcode: string;
  channelRef: string;
  number: number;
  parcels: string;
  tracking: string | null;
}
type Row = Omit<GoodsLine, 'quantity' | 'note'> & {
  quantity: string;
  lot: string | null;
  expires: string | null;
  tracking: string;
  serials: string | null;
};

/** The papers that go with a parcel: what is in it, and what of its order is not. */
@Injectable()
export class ParcelPapers implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly work: Work,
    private readonly printable: Papers,
  ) {}

  onModuleInit(): void {
    this.printable.register('delivery-note', 'Delivery note', (person, order) => this.deliveryNote(person, order));
    this.printable.register('packing-list', 'Packing list', (person, parcel) => this.listFor(person, parcel));
  }

  /** The packing list of a parcel, for somebody who works at its site. */
  async listFor(person: Person, code: string): Promise<Buffer> {
    const { siteId, ...parcel } = await this.read(code);
    mustBeAt(person, siteId);
    return this.pdf(parcel);
  }

  /** All that left for an order so far, parcel by parcel. */
  async deliveryNote(person: Person, order: string): Promise<Buffer> {
    const gone = await rows<{ code: string; at: Date; siteId: number }>(
      this.source,
      `SELECT p.code, p.handed_over_at AS at, o.site_id AS siteId FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE o.code = ? AND p.state = 'gone' AND o.site_id IN (?) ORDER BY p.number`,
      [order, [0, ...person.siteIds]],
    );
    const last = gone.reduce<Date | null>((latest, p) => (latest && latest > p.at ? latest : p.at), null);
    if (!last) throw notFound(`A parcel of ${order.slice(0, 20)} that has left`);
    const parcels = await Promise.all(gone.map((p) => this.read(p.code)));
    const from = await this.settings.letterhead();
    return this.work.run(DELIVERY_NOTE, { parcels, leftOn: dayIn(from.timeZone ?? 'UTC', last) }, from);
  }

  async pdf(parcel: PackedParcel): Promise<Buffer> {
    return this.work.run(PARCEL_LIST, parcel, await this.settings.letterhead());
  }

  /** What a parcel holds, and what follows. Throws where there is none of that code. */
  async read(code: string): Promise<PackedParcel & { siteId: number }> {
    const head = await one<Head>(
      this.source,
      `SELECT p.id, p.order_id, p.code, w.site_id, o.code AS \`order\`, o.customer, o.address_line AS addressLine, o.city, o.postcode, o.channel_ref AS channelRef, p.number, p.tracking,
         (SELECT COUNT(*) FROM parcel q WHERE q.order_id = p.order_id AND q.state <> 'void') AS parcels
       FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id WHERE p.code = ?`,
      [code],
    );
    if (!head) throw notFound(`Parcel ${code}`);
    const goods = await rows<Row>(
      this.source,
      `SELECT i.name, i.sku AS code, SUM(c.units) AS quantity, u.name AS unit, u.plural AS units, i.tracking, t.code AS lot, DATE_FORMAT(t.expires_on, '%Y-%m-%d') AS expires,
         (SELECT GROUP_CONCAT(s.serial ORDER BY s.id SEPARATOR ', ') FROM parcel_serial s WHERE s.parcel_id = c.parcel_id AND s.order_line_id = l.id) AS serials
       FROM parcel_line c JOIN sales_order_line l ON l.id = c.order_line_id JOIN item i ON i.id = l.item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN lot t ON t.id = c.lot_id
       WHERE c.parcel_id = ? GROUP BY l.id, c.lot_id ORDER BY l.line, t.code`,
      [head.id],
    );
    const { id, order_id, site_id: siteId, parcels, ...of } = head;
    return {
      ...of,
      siteId,
      parcels: num(parcels),
      goods: goods.map(({ quantity, lot, expires, tracking, serials, ...g }) => ({
        ...g,
        quantity: num(quantity),
        note: [traced(tracking, lot, expires), serials && `serial number ${serials}`].filter(Boolean).join(', '),
      })),
      follows: await this.follows(order_id, id),
      leftOut: await this.leftOut(order_id),
    };
  }

  /** Inserts that are in none of the parcels of an order, and on their way into none. */
  private async leftOut(orderId: number): Promise<GoodsLine[]> {
    const found = await rows<Omit<GoodsLine, 'quantity' | 'note'> & { rest: string }>(
      this.source,
      `SELECT i.name, i.sku AS code, u.name AS unit, u.plural AS units,
         l.units + l.left_out - COALESCE((SELECT SUM(c.units) FROM parcel_line c JOIN parcel p ON p.id = c.parcel_id WHERE c.order_line_id = l.id AND p.state <> 'void'), 0)
           - COALESCE((SELECT SUM(v.units) FROM reservation v JOIN place w ON w.id = v.place_id WHERE v.order_line_id = l.id AND w.kind <> 'parcel'), 0) AS rest
       FROM sales_order_line l JOIN item i ON i.id = l.item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1
       WHERE l.order_id = ? AND i.never_holds_up = 1 HAVING rest > 0 ORDER BY l.line`,
      [orderId],
    );
    return found.map(({ rest, ...g }) => ({ ...g, quantity: num(rest), note: 'left out this time' }));
  }

  /** What the order still wants beyond this parcel and those that have left. What never holds up an order is not promised. */
  private async follows(orderId: number, parcelId: number): Promise<GoodsLine[]> {
    const found = await rows<Omit<GoodsLine, 'quantity' | 'note'> & { rest: string; elsewhere: string }>(
      this.source,
      `SELECT COALESCE(i.name, l.channel_sku) AS name, COALESCE(i.sku, l.channel_sku) AS code, COALESCE(u.name, 'piece') AS unit, COALESCE(u.plural, 'pieces') AS units,
         l.units - COALESCE(SUM(IF(p.id = ? OR p.state = 'gone', c.units, 0)), 0) AS rest, COALESCE(SUM(IF(p.id <> ? AND p.state NOT IN ('gone','void'), c.units, 0)), 0) AS elsewhere
       FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id LEFT JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN parcel_line c ON c.order_line_id = l.id LEFT JOIN parcel p ON p.id = c.parcel_id
       WHERE l.order_id = ? AND l.units > 0 AND COALESCE(i.never_holds_up, 0) = 0 GROUP BY l.id HAVING rest > 0 ORDER BY l.line`,
      [parcelId, parcelId, orderId],
    );
    return found.map(({ rest, elsewhere, ...g }) => ({
      ...g,
      quantity: num(rest),
      note:
        num(elsewhere) >= num(rest)
          ? 'in another parcel'
          : num(elsewhere) > 0
            ? `${num(elsewhere)} in another parcel, the rest follows`
            : 'follows',
    }));
  }
}

function traced(tracking: string, lot: string | null, expires: string | null): string {
  if (!lot) return '';
  const word = tracking === 'serial' ? 'serial number' : 'lot';
  return `${word} ${lot}${expires ? `, best before ${expires}` : ''}`;
}

/** Goods as lines of a mail. */
export const inWords = (goods: readonly GoodsLine[]): string =>
  goods.map((g) => `  ${countOf(g.quantity, { name: g.unit, plural: g.units })} ${g.name}${g.note ? ` (${g.note})` : ''}`).join('\n');
