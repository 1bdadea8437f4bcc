import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { addDays, siteDay, update } from '../platform/index.js';
import { PurchasingQueries, PurchasingService } from '../purchasing/index.js';
import { SupplierDocuments } from '../receiving/index.js';
import { writeDespatchAdvice, writeOrderResponse, type UblDespatchLine, type UblOrderResponse, type UblParty } from '../ubl/index.js';
import { actAs } from './morning.js';

const US: UblParty = { code: '', name: 'Tarn & Thistle', addressLines: ['Millrace'], email: 'orders@tarnthistle.example', phone: '' };

/** The key that the suppliers of the outside world sign with. */
export const SUPPLIER_KEY = 'suppliers-and-stores-share-this';

/** How they trade: currency, terms, least value, units, pallets. */
const TERMS: readonly (readonly [string, string, string, string | null, number | null, number | null])[] = [
  ['PELLOWICK', 'GBP', '30 days net', '250.00', null, null],
  ['QUILLON', 'EUR', '14 days 2 %, 30 days net', null, null, 1],
  ['VETCHLEY', 'GBP', '30 days net', '500.00', null, null],
  ['OULDEN', 'GBP', '7 days net', null, 40, null],
  ['TINDRA', 'GBP', '60 days net', null, null, null],
];
const PEOPLE: readonly (readonly [string, string, string, string, string])[] = [
  ['QUILLON', 'Annick Delorme', 'Sales', 'annick@quillon.example', '+32 2 555 01 28'],
  ['QUILLON', 'Joris Peel', 'Haulage', 'joris@quillon.example', '+32 2 555 01 30'],
  ['PELLOWICK', 'Wilf Pellowick', 'Owner', 'wilf@pellowick.example', '01632 960121'],
  ['TINDRA', 'Sanna Lindh', 'Sales', 'sanna@tindra.example', '01632 960118'],
  ['VETCHLEY', 'Dr Ames', 'Orders', 'ames@vetchley.example', '01632 960107'],
];
/** Lower prices: supplier, item, from how many packs, per cent of the plain price. */
const BREAKS: readonly (readonly [string, string, number, number])[] = [
  ['QUILLON', 'JAR-454-RD', 10, 95],
  ['QUILLON', 'JAR-454-RD', 32, 89],
  ['QUILLON', 'JAR-340-HX', 16, 94],
  ['PELLOWICK', 'FRM-DN1', 20, 92],
  ['BRINDLEMOOR', 'SMK-LGE', 10, 93],
];

/** What is agreed with suppliers, and what they have sent this morning. */
@Injectable()
export class DemoBuying {
  constructor(
    private readonly source: DataSource,
    private readonly purchasing: PurchasingService,
    private readonly orders: PurchasingQueries,
    private readonly documents: SupplierDocuments,
  ) {}

  async agree(): Promise<void> {
    await this.source.query('UPDATE supplier SET document_key = ?', [SUPPLIER_KEY]);
    for (const [code, currency, terms, value, units, pallets] of TERMS)
      await update(this.source, 'supplier', { code }, { currency, terms, least_value: value, least_units: units, least_pallets: pallets });
    // The mill's van comes round twice a week.
    await update(this.source, 'supplier', { code: 'OULDEN' }, { order_days: 'NYNYNNN' });
    // The rack of feeders holds sixty.
    await this.source.query("INSERT INTO buying_rule (item_id, site_id, room_units) SELECT id, 1, 60 FROM item WHERE sku = 'FDR-ASH'");
    for (const [i, [code, name, role, email, phone]] of PEOPLE.entries())
      await this.source.query(
        'INSERT INTO supplier_contact (supplier_id, position, name, role, email, phone) SELECT id, ?, ?, ?, ?, ? FROM supplier WHERE code = ?',
        [i + 1, name, role, email, phone, code],
      );
    for (const [code, sku, from, percent] of BREAKS)
      await this.source.query(
        `INSERT INTO supplier_price_break (supplier_id, item_id, from_packs, price)
         SELECT x.supplier_id, x.item_id, ?, ROUND(x.price * ? / 100, 2) FROM supplier_item x JOIN supplier s ON s.id = x.supplier_id JOIN item i ON i.id = x.item_id WHERE s.code = ? AND i.sku = ?`,
        [from, percent, code, sku],
      );
  }

  /** One order confirmed, one answered with changes, and two pallets announced for today. */
  async hear(placed: ReadonlyMap<string, string>): Promise<void> {
    const today = (await siteDay(this.source, 1)).today;
    const answer = (supplier: string, more: Partial<UblOrderResponse>) => ({
      id: `${supplier.slice(0, 2)}-${today.slice(5)}`,
      issuedOn: today,
      says: 'changed' as const,
      order: placed.get(supplier) ?? '',
      note: '',
      seller: supplier,
      promisedOn: null,
      lines: [],
      ...more,
    });
    await this.send(answer('PELLOWICK', { says: 'accepted' }));
    await this.send(
      answer('BRINDLEMOOR', {
        note: 'Smokers are short until next week',
        lines: [
          { line: 1, says: 'changed', packs: 4, price: '70.80', promisedOn: addDays(today, 8), note: 'bellows late' },
          { line: 2, says: 'accepted', packs: null, price: null, promisedOn: null, note: '' },
        ],
      }),
    );
    await this.announce(today);
  }

  private async announce(today: string): Promise<void> {
    const buyer = await actAs(this.source, 'Piet');
    const act = () => ({ ...buyer, key: randomUUID() });
    const { code } = await this.purchasing.add(act(), {
      supplier: 'VETCHLEY',
      siteId: 1,
      expectedOn: today,
      note: 'Deliver to the cage door',
      lines: [
        { sku: 'MTS-10', packs: 24, factor: 10, price: '112.00' },
        { sku: 'OXA-35', packs: 12, factor: 20, price: '72.00' },
      ],
    });
    await this.purchasing.place(act(), code, 1);
    const expires = addDays(today, 540);
    const line = (n: number, orderLine: number, packs: number, lot: string, sscc: string): UblDespatchLine => ({
      line: n,
      order: code,
      orderLine,
      packs,
      factor: null,
      sku: '',
      name: '',
      lot,
      expires,
      sscc,
    });
    await this.documents.take(
      act(),
      Buffer.from(
        writeDespatchAdvice(
          {
            id: `VA-${today.slice(5)}`,
            issuedOn: today,
            tracking: null,
            arrivesOn: today,
            supplier: 'Vetchley Animal Care',
            lines: [line(1, 1, 16, 'VT2611', PALLETS[0]), line(2, 1, 8, 'VT2612', PALLETS[1]), line(3, 2, 12, 'VO2609', PALLETS[1])],
          },
          { code: 'VETCHLEY', name: 'Vetchley Animal Care', addressLines: [], email: '', phone: '' },
          US,
        ),
      ),
    );
  }

  private async send(response: UblOrderResponse): Promise<void> {
    const buyer = await actAs(this.source, 'Piet');
    const order = await this.orders.sheet(response.order, buyer.person.siteIds, true);
    const seller = { code: order.supplierCode, name: order.supplier, addressLines: [], email: '', phone: '' };
    await this.documents.take(
      { ...buyer, key: randomUUID() },
      Buffer.from(writeOrderResponse({ ...response, seller: order.supplier }, seller, US, order.currency)),
    );
  }
}

/** Pallet codes of the demo, with their check digits. */
export const PALLETS = ['395210770000000011', '395210770000000028'] as const;
