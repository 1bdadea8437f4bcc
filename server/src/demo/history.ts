import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Act, addDays, insert, more, one, siteDay, update } from '../platform/index.js';
import { PurchasingService } from '../purchasing/index.js';
import { ReceivingService } from '../receiving/index.js';
import { SupplierReturns } from '../returns/index.js';
import { asOrdered, DemoHands } from './hands.js';
import { actAs } from './morning.js';

interface PastLine {
  sku: string;
  packs: number;
  factor: number;
  price: string;
  /** Packs that never came, and base units that came broken. */
  short?: number;
  broken?: number;
}
interface PastOrder {
  supplier: string;
  /** Days ago, days until it was due, days until it came. */
  placed: number;
  due: number;
  took: number;
  lines: readonly PastLine[];
  /** The price of the first line before the supplier changed it. */
  was?: string;
}

const line = (sku: string, packs: number, factor: number, price: string, more: Partial<PastLine> = {}): PastLine => ({
  sku,
  packs,
  factor,
  price,
  ...more,
});

/** What the last half year brought; these goods are on the shelves because of it. */
const PAST: readonly PastOrder[] = [
  { supplier: 'QUILLON', placed: 170, due: 28, took: 30, lines: [line('LID-63-BK', 1, 1000, '46.00')] },
  {
    supplier: 'PELLOWICK',
    placed: 150,
    due: 21,
    took: 20,
    lines: [line('FRM-DN4', 30, 10, '9.10'), line('HIV-CRN', 8, 5, '27.40')],
  },
  {
    supplier: 'TINDRA',
    placed: 126,
    due: 18,
    took: 17,
    lines: [line('SUIT-M', 5, 6, '183.00'), line('GLV-M', 6, 12, '75.60', { broken: 3 })],
  },
  {
    supplier: 'BRINDLEMOOR',
    placed: 112,
    due: 14,
    took: 14,
    lines: [line('SMK-SML', 6, 6, '54.60'), line('UNC-FORK', 3, 20, '43.00')],
  },
  { supplier: 'MARROWDALE', placed: 84, due: 10, took: 9, lines: [line('WAX-BLK-500', 4, 24, '122.40')] },
  { supplier: 'CORRIN', placed: 76, due: 6, took: 6, lines: [line('SEAL-TMP-100', 4, 20, '31.40')] },
  { supplier: 'PELLOWICK', placed: 72, due: 21, took: 26, lines: [line('FRM-1412', 20, 10, '11.90')], was: '11.40' },
  { supplier: 'TINDRA', placed: 61, due: 18, took: 24, lines: [line('VEIL-RND', 3, 20, '114.00')] },
  { supplier: 'BRINDLEMOOR', placed: 47, due: 14, took: 15, lines: [line('MRK-PEN', 6, 12, '12.80', { short: 1 })] },
  { supplier: 'CORRIN', placed: 31, due: 6, took: 5, lines: [line('BOK-WAX', 3, 16, '87.90')] },
];

/** Goods that are there because they were bought, not because they were counted in. */
export const BOUGHT_BEFORE: ReadonlySet<string> = new Set(PAST.flatMap((p) => p.lines.map((l) => l.sku)));

/** Orders of the last half year, all of them done with: what scorecards are reckoned from. */
@Injectable()
export class DemoHistory {
  constructor(
    private readonly source: DataSource,
    private readonly purchasing: PurchasingService,
    private readonly receiving: ReceivingService,
    private readonly hands: DemoHands,
    private readonly returns: SupplierReturns,
  ) {}

  async load(): Promise<void> {
    const [piet, ruben, beth] = await Promise.all(['Piet', 'Ruben', 'Beth'].map((name) => actAs(this.source, name)));
    if (!piet || !ruben || !beth) return;
    await update(this.source, 'number_series', { name: 'P' }, { next: more(-PAST.length) });
    for (const past of PAST) await this.order(past, { piet, ruben, beth });
    // They were sent long ago.
    await this.source.query(`DELETE FROM outbox WHERE kind IN ('mail.purchase-order','mail.supplier-return')`);
  }

  private async order(past: PastOrder, by: { piet: Act; ruben: Act; beth: Act }): Promise<void> {
    const placedOn = addDays((await siteDay(this.source, 1)).today, -past.placed);
    const { code } = await this.purchasing.add(fresh(by.piet), {
      supplier: past.supplier,
      siteId: 1,
      expectedOn: addDays(placedOn, past.due),
      note: '',
      lines: past.lines.map(({ sku, packs, factor, price }) => ({ sku, packs, factor, price })),
    });
    await this.purchasing.place(fresh(by.piet), code, 1);
    const { task } = await this.receiving.task(this.source.manager, by.ruben.person, code);
    for (const [i, l] of past.lines.entries()) {
      const { lineId = 0, itemId = 0 } = task.lines[i] ?? {};
      const home = await one<{ id: number }>(this.source, 'SELECT home_place_id AS id FROM item_site WHERE item_id = ? AND site_id = 1', [
        itemId,
      ]);
      const goods = { ...asOrdered, document: code, lineId, itemId };
      const good = (l.packs - (l.short ?? 0)) * l.factor - (l.broken ?? 0);
      await this.hands.does(by.ruben, { ...goods, units: good, toPlaceId: home?.id ?? task.dock.id });
      if (l.broken && task.apart) {
        await this.hands.does(by.ruben, { ...goods, units: l.broken, condition: 'damaged', toPlaceId: task.apart.id });
        await this.sendBack(past, by, { itemId, units: l.broken, placeId: task.apart.id });
      }
    }
    await this.hands.does(by.ruben, { kind: 'close-arrival', document: code, paper: '' });
    await this.closeAndDate(code, past, by.piet);
  }

  private async sendBack(
    past: PastOrder,
    by: { piet: Act; beth: Act },
    goods: { itemId: number; units: number; placeId: number },
  ): Promise<void> {
    const { code } = await this.returns.send(fresh(by.piet), {
      supplier: past.supplier,
      siteId: 1,
      reason: 'Seams open',
      lines: [{ ...goods, lotId: 0, condition: 'damaged' }],
    });
    await this.returns.credit(fresh(by.beth), code, 1, { ref: 'TC-2291', amount: '18.90' });
    await this.source.query(
      'UPDATE supplier_return SET sent_at = UTC_TIMESTAMP() - INTERVAL ? DAY, credited_at = UTC_TIMESTAMP() - INTERVAL ? DAY WHERE code = ?',
      [past.placed - past.took - 2, past.placed - past.took - 12, code],
    );
  }

  /** Closes the order and moves its papers to when they were. Movements are never changed: they tell when the demo was loaded. */
  private async closeAndDate(code: string, past: PastOrder, buyer: Act): Promise<void> {
    const order = await one<{ id: number; version: number }>(this.source, 'SELECT id, version FROM purchase_order WHERE code = ?', [code]);
    if (!order) return;
    await this.purchasing.close(fresh(buyer), code, order.version);
    if (past.was)
      await insert(this.source, 'purchase_order_change', {
        order_id: order.id,
        line: 1,
        what: 'price',
        was: past.was,
        becomes: past.lines[0]?.price ?? '',
        why: 'the supplier’s answer',
        person_id: buyer.person.id,
      });
    const came = past.placed - past.took;
    const ago = (column: string, days: number) => `${column} = UTC_TIMESTAMP(3) - INTERVAL ${days} DAY`;
    const dated: readonly [sql: string, params: unknown[]][] = [
      [
        `UPDATE purchase_order SET ${ago('created_at', past.placed)}, ${ago('placed_at', past.placed)}, ${ago('first_received_at', came)} WHERE id = ?`,
        [order.id],
      ],
      [
        `UPDATE arrival a JOIN arrival_order x ON x.arrival_id = a.id SET a.expected_on = ? - INTERVAL ${came} DAY, ${ago('a.opened_at', came)}, ${ago('a.closed_at', came)} WHERE x.order_id = ?`,
        [(await siteDay(this.source, 1)).today, order.id],
      ],
      [`UPDATE receipt r JOIN arrival_order x ON x.arrival_id = r.arrival_id SET ${ago('r.at', came)} WHERE x.order_id = ?`, [order.id]],
      [`UPDATE purchase_order_change SET ${ago('at', came)} WHERE order_id = ?`, [order.id]],
      [
        `UPDATE activity SET ${ago('at', came)}, undo_data = NULL WHERE document = ? OR document IN (SELECT a.code FROM arrival a JOIN arrival_order x ON x.arrival_id = a.id WHERE x.order_id = ?)`,
        [code, order.id],
      ],
    ];
    for (const [sql, params] of dated) await this.source.query(sql, params);
  }
}

const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });
