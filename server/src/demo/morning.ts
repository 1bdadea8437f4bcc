import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { AllocationService } from '../allocation/index.js';
import { rightsOf } from '../identity/index.js';
import { type Act, addDays, find, inTransaction, one, rows, siteDay, type Tx } from '../platform/index.js';
import { type ChargeDto, PurchasingService } from '../purchasing/index.js';
import { StoringService } from '../putaway/index.js';
import { ReceivingService } from '../receiving/index.js';
import { LedgerService } from '../stock/index.js';
import { asOrdered, DemoHands } from './hands.js';
import { demoItems } from './goods.js';
import { BOUGHT_BEFORE } from './history.js';
import { DEMO_PEOPLE } from './people.js';
import { seeded } from '@vectrum/core/random';

/** An act by one of the demo's people. */
export async function actAs(source: DataSource, name: string): Promise<Act> {
  const person = DEMO_PEOPLE.find((p) => p.name.startsWith(name));
  const row = await one<{ id: number }>(source, 'SELECT id FROM person WHERE name = ?', [person?.name]);
  const sites = await rows<{ site_id: number }>(source, 'SELECT site_id FROM person_site WHERE person_id = ?', [row?.id]);
  return {
    key: randomUUID(),
    deviceId: null,
    deviceAt: null,
    person: {
      id: row?.id ?? 0,
      name: person?.name ?? '',
      rights: rightsOf(person?.duties ?? []),
      isOwner: person?.duties.includes('owner') ?? false,
      siteIds: sites.map((s) => s.site_id),
      seesCosts: person?.seesCosts ?? false,
    },
  };
}

/** They come by lorry, to the door that has a ramp. */
const BY_LORRY = new Set(['QUILLON', 'PELLOWICK', 'OULDEN']);
const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });

/** What the shop at the quay has: it can be fetched for orders that the mill lacks it for. */
const AT_QUAY: readonly (readonly [sku: string, place: string, units: number])[] = [['CND-MLD-BE', 'M-02-1', 24]];

/** A later lot of these lies in their home bin too. */
const TWO_LOTS = new Set(['POL-PAT']);

/** Stock on the shelves and purchase orders in every state. */
@Injectable()
export class DemoMorning {
  constructor(
    private readonly source: DataSource,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly purchasing: PurchasingService,
    private readonly hands: DemoHands,
    private readonly receiving: ReceivingService,
    private readonly storing: StoringService,
  ) {}

  /** Opening stock: what each home bin holds, with reserve stock above the fast movers. */
  async stockShelves(): Promise<void> {
    const act = await actAs(this.source, 'Maren');
    const random = seeded(7);
    const items = await rows<{ id: number; sku: string; home: number; tracking: string }>(
      this.source,
      'SELECT i.id, i.sku, s.home_place_id AS home, i.tracking FROM item i JOIN item_site s ON s.item_id = i.id AND s.site_id = 1 ORDER BY i.id',
    );
    const reserve = await rows<{ id: number }>(
      this.source,
      `SELECT id FROM place WHERE kind = 'reserve' AND site_id = 1 ORDER BY walk_order`,
    );
    const seeds = new Map(demoItems().map((i) => [i.sku, i]));
    await inTransaction(this.source, async (tx) => {
      const from = await this.ledger.outside(tx, 'count-difference');
      for (const [n, item] of items.entries()) {
        if (item.sku.startsWith('KIT-')) continue;
        const seed = seeds.get(item.sku);
        const pack = seed?.packs[1]?.factor ?? 6;
        if (item.tracking === 'serial') {
          await this.serials(tx, act, item, from, 6);
          continue;
        }
        const lotId = item.tracking === 'none' ? 0 : await this.lot(tx, item.id, `L26${String(10 + n)}`, 90 + Math.floor(random() * 200));
        const many = (seed?.weightG ?? 0) > 3000 ? 8 : Math.min(420, pack * (2 + Math.floor(random() * 4)));
        const units = ['SUIT-XL', 'GLV-S'].includes(item.sku) ? 1 : many;
        const key = { itemId: item.id, lotId, condition: 'good' as const, fromPlaceId: from };
        const moves = BOUGHT_BEFORE.has(item.sku) ? [] : [{ ...key, toPlaceId: item.home, units }];
        if (n % 3 === 0) moves.push({ ...key, toPlaceId: reserve[n * 2]?.id ?? item.home, units: pack * 2 });
        if (TWO_LOTS.has(item.sku))
          moves.push({ ...key, lotId: await this.lot(tx, item.id, 'L2699', 400), toPlaceId: item.home, units: pack });
        if (moves.length === 0) continue;
        const { changes } = await this.ledger.post(tx, act, moves, { task: 'open', document: 'OPENING' });
        await this.allocation.settle(tx, changes);
      }
      for (const [sku, code, units] of AT_QUAY) {
        const [itemId, toPlaceId] = [items.find((i) => i.sku === sku)?.id ?? 0, (await find(tx, 'place', { code }))?.id ?? 0];
        const goods = { itemId, lotId: 0, condition: 'good' as const, fromPlaceId: from, toPlaceId, units };
        const { changes } = await this.ledger.post(tx, act, [goods], { task: 'open', document: 'OPENING' });
        await this.allocation.settle(tx, changes);
      }
    });
  }

  /** Pieces with numbers of their own: each a lot of one. */
  private async serials(
    tx: Tx,
    act: Act,
    item: { id: number; sku: string; home: number },
    fromPlaceId: number,
    pieces: number,
  ): Promise<void> {
    const moves = [];
    for (let n = 1; n <= pieces; n++) {
      const made = await tx.query<{ insertId: number }>(
        'INSERT INTO lot (item_id, code, first_received_on) VALUES (?, ?, ? - INTERVAL 40 DAY)',
        [item.id, `${item.sku.slice(0, 3)}26-${String(400 + item.id * 10 + n)}`, (await siteDay(tx, 1)).today],
      );
      moves.push({ itemId: item.id, lotId: made.insertId, condition: 'good' as const, fromPlaceId, toPlaceId: item.home, units: 1 });
    }
    await this.ledger.post(tx, act, moves, { task: 'open', document: 'OPENING' });
  }

  private async lot(tx: { query: DataSource['query'] }, itemId: number, code: string, days: number): Promise<number> {
    const { today } = await siteDay(this.source, 1);
    const done = await tx.query<{ insertId: number }>(
      'INSERT INTO lot (item_id, code, expires_on, first_received_on) VALUES (?, ?, ? + INTERVAL ? DAY, ? - INTERVAL 20 DAY)',
      [itemId, code, today, days, today],
    );
    return done.insertId;
  }

  /** Two late, one part received on the dock, some due today, some later, one draft. */
  async purchaseOrders(): Promise<ReadonlyMap<string, string>> {
    const placed = new Map<string, string>();
    const buyer = await actAs(this.source, 'Piet');
    const today = (await siteDay(this.source, 1)).today;
    const order = async (
      supplier: string,
      days: number,
      lines: [string, number, number, string][],
      place = true,
      charges: ChargeDto[] = [],
    ) => {
      const { code } = await this.purchasing.add(fresh(buyer), {
        supplier,
        siteId: 1,
        expectedOn: addDays(today, days),
        door: BY_LORRY.has(supplier) ? 'DOCK-2' : null,
        note: '',
        lines: lines.map(([sku, packs, factor, price]) => ({ sku, packs, factor, price })),
        charges,
      });
      placed.set(supplier, code);
      if (place) await this.purchasing.place(fresh(buyer), code, 1);
      return code;
    };
    const glass = await order(
      'QUILLON',
      0,
      [
        ['JAR-454-RD', 8, 48, '20.16'],
        ['JAR-340-HX', 20, 48, '18.24'],
        ['JAR-227-RD', 10, 48, '14.40'],
        ['LID-63-GD', 4, 1000, '48.00'],
      ],
      true,
      [
        { says: 'Freight', amount: '148.00', by: 'weight' },
        { says: 'Duty', amount: '61.50', by: 'value' },
      ],
    );
    await order('TINDRA', -4, [
      ['SUIT-L', 4, 6, '186.00'],
      ['SUIT-XL', 4, 6, '186.00'],
      ['GLV-S', 3, 12, '76.80'],
    ]);
    await order('VETCHLEY', -2, [
      ['MTS-10', 12, 10, '112.00'],
      ['OXA-35', 6, 20, '72.00'],
    ]);
    await order('OULDEN', 0, [
      ['SYR-05', 2, 128, '883.20'],
      ['FON-025', 20, 5, '21.50'],
    ]);
    await order('PELLOWICK', 0, [
      ['FRM-DN1', 2, 500, '460.00'],
      ['FRM-SN1', 60, 10, '8.40'],
      ['HIV-SUP', 1, 36, '511.20'],
    ]);
    await order('BRINDLEMOOR', 3, [
      ['SMK-LGE', 6, 6, '68.40'],
      ['TOOL-JH', 5, 20, '62.00'],
    ]);
    await order('MARROWDALE', 5, [['WAX-DN-10', 10, 10, '84.00']]);
    await order(
      'CORRIN',
      9,
      [
        ['LBL-HON-100', 4, 20, '42.00'],
        ['BOK-YEAR', 3, 16, '99.20'],
      ],
      false,
    );
    await this.receiveSome(glass);
    return placed;
  }

  private async receiveSome(code: string): Promise<void> {
    const ruben = await actAs(this.source, 'Ruben');
    const { task } = await this.receiving.task(this.source.manager, ruben.person, code);
    const take = (line: number, units: number, damaged = false) =>
      this.hands.does(ruben, {
        ...asOrdered,
        document: code,
        lineId: task.lines[line - 1]?.lineId ?? 0,
        itemId: task.lines[line - 1]?.itemId ?? 0,
        units,
        toPlaceId: (damaged ? task.apart : null)?.id ?? task.dock.id,
        condition: damaged ? 'damaged' : 'good',
      });
    await take(1, 192);
    await take(2, 7, true);
    await take(3, 480);
    await take(4, 2000);
    const goods = (await this.storing.task(this.source.manager, 1)).goods.find((g) => g.units === 480);
    const bin = await one<{ id: number }>(this.source, 'SELECT id FROM place WHERE code = ?', [goods?.suggestion?.code]);
    if (goods && bin)
      await this.hands.does(ruben, {
        kind: 'store',
        itemId: goods.itemId,
        lotId: goods.lotId,
        units: 240,
        fromPlaceId: goods.fromPlaceId,
        toPlaceId: bin.id,
        how: 'scanned',
      });
  }
}
