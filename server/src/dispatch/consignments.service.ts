import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { mustBeAt, notFound, one, PAPER, type Person, rows, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { Consignment, consignmentNotePdf } from './consignment-note.pdf.js';

const NOTES = task<typeof consignmentNotePdf>('dispatch/consignmentNotePdf', ...PAPER);

interface ParcelOf {
  code: string;
  order: string;
  customer: string;
  line: string;
  city: string;
  postcode: string;
  country: string;
  booking: string | null;
  carton: string | null;
  weightG: number;
  litres: string | null;
  goods: string | null;
}

/** The consignment notes of a hand-over: one for each consignee. */
@Injectable()
export class ConsignmentsService {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly work: Work,
  ) {}

  async notes(code: string, person: Person): Promise<Buffer> {
    const head = await one<{
      carrier: string;
      site: string;
      siteId: number;
      timeZone: string;
      at: Date;
      driver: string | null;
      signature: string | null;
    }>(
      this.source,
      `SELECT c.name AS carrier, s.name AS site, s.id AS siteId, s.time_zone AS timeZone, h.at, h.driver, h.signature
       FROM hand_over h JOIN carrier c ON c.id = h.carrier_id JOIN site s ON s.id = h.site_id WHERE h.code = ?`,
      [code],
    );
    if (!head) throw notFound(`Hand-over ${code}`);
    mustBeAt(person, head.siteId);
    const { siteId: _, timeZone, ...shown } = head;
    const at = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone }).format(head.at);
    const parcels = await rows<ParcelOf>(
      this.source,
      `SELECT p.code, o.code AS \`order\`, o.customer, o.address_line AS line, o.city, o.postcode, o.country, p.booking, p.carton, p.weight_g AS weightG, k.length_mm * k.width_mm * k.height_mm / 1000000 AS litres,
         (SELECT GROUP_CONCAT(DISTINCT i.name ORDER BY i.name SEPARATOR ', ') FROM parcel_line pl JOIN sales_order_line l ON l.id = pl.order_line_id JOIN item i ON i.id = l.item_id WHERE pl.parcel_id = p.id) AS goods
       FROM parcel p JOIN sales_order o ON o.id = p.order_id LEFT JOIN carton k ON k.code = p.carton WHERE p.hand_over = ? ORDER BY o.code, p.number`,
      [code],
    );
    const orders = [...new Set(parcels.map((p) => p.order))];
    const notes = orders.map((order): Consignment => {
      const mine = parcels.filter((p) => p.order === order);
      const first = mine[0];
      return {
        ...shown,
        code,
        order,
        at,
        booking:
          mine
            .map((p) => p.booking)
            .filter(Boolean)
            .join(', ') || null,
        to: first ? [first.customer, first.line, `${first.city} ${first.postcode}`, first.country] : [],
        parcels: mine.map((p) => ({
          code: p.code,
          carton: p.carton ?? '',
          goods: p.goods ?? '',
          weightG: p.weightG,
          litres: p.litres === null ? null : Number(p.litres),
        })),
      };
    });
    return this.work.run(NOTES, notes, await this.settings.letterhead());
  }
}
