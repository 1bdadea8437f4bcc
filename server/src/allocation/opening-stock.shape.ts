import {
  type MadeLog,
  cell,
  type Cells,
  type Column,
  fault,
  has,
  type ImportRow,
  type Memory,
  numberOf,
  type RowFault,
  type Shape,
  skuColumn,
  text,
  textOf,
  trimmed,
  unknown,
} from '../exchange/index.js';
import { packIds } from '../catalogue/index.js';
import { kindsFor } from '@vectrum/core/places';
import { Injectable } from '@nestjs/common';
import { CONDITIONS, type Condition, type Movement } from '@vectrum/core/ledger';
import { AllocationService } from './allocation.service.js';
import { keepFirstCost, refreshLacks } from '../catalogue/index.js';
import { type Act, marks, type Person, rows, type Tx } from '../platform/index.js';
import { LedgerService, openLots } from '../stock/index.js';

/** Goods lie in places of these kinds; zones and outside places hold none. */
const HOLDS = new Set(kindsFor('keep'));

interface ItemFact {
  id: number;
  sku: string;
  tracking: string;
}

/** What already lies on the shelves on the first day, with its lots, dates, serial numbers and costs: one row a heap. */
@Injectable()
export class OpeningStockShape implements Shape {
  readonly kind = 'stock';
  readonly says = 'Opening stock';
  readonly right = 'set-up';
  readonly tables = { item: ['id'] };
  readonly onceOnly = 'This very file of stock was taken in before. Take that import back first, or the goods would count twice';

  constructor(
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
  ) {}

  columns(_tx: unknown, person: Person): Column[] {
    return [
      skuColumn(),
      {
        key: 'place',
        label: 'Place',
        also: ['bin', 'location'],
        required: true,
        read: cell.code(/^[A-Za-z0-9][A-Za-z0-9-]{0,39}$/, 'A place code, such as C-07-2'),
      },
      { key: 'lot', label: 'Lot or serial', also: ['lot', 'batch', 'serial', 'serial number'], read: cell.text(40) },
      { key: 'expires', label: 'Expires', also: ['expiry', 'best before', 'use by'], read: cell.date },
      { key: 'condition', label: 'Condition', read: cell.oneOf(CONDITIONS) },
      {
        key: 'count',
        label: 'Count',
        also: ['quantity', 'qty', 'units', 'on hand', 'stock'],
        required: true,
        read: cell.whole(1, 100_000_000),
      },
      { key: 'holds', label: 'Counted in packs of', also: ['holds', 'pack size'], read: cell.whole(1, 1_000_000) },
      ...(person.seesCosts ? [{ key: 'cost', label: 'Cost of a unit', also: ['unit cost', 'cost'], read: cell.decimal }] : []),
    ];
  }

  async check(tx: Tx, batch: readonly ImportRow[], memory: Memory, person: Person): Promise<RowFault[]> {
    const items = await this.items(tx, batch);
    const places = await this.places(tx, batch);
    const packs = await packIds(
      tx,
      [...items.values()].map((i) => i.id),
    );
    const lots = await this.lots(tx, items, batch);
    const faults = unknown(batch, 'sku', items, (sku) => `There is no item ${sku}. Take items in first`);
    faults.push(...unknown(batch, 'place', places, (code) => `There is no place ${code}. Take places in first`));
    for (const r of batch) {
      const place = places.get(textOf(r, 'place').toUpperCase());
      if (place && !HOLDS.has(place.kind))
        faults.push(fault(r, 'place', textOf(r, 'place'), `Goods do not lie in a ${place.kind.replace('-', ' ')}`));
      if (place && !person.siteIds.includes(place.site_id))
        faults.push(fault(r, 'place', textOf(r, 'place'), 'This place is at a site where you are not set up'));
      if (place?.kind === 'pick-face' && textOf(r, 'condition') === 'damaged')
        faults.push(fault(r, 'condition', 'damaged', 'Damaged goods do not lie in a pick face. Name a place where they are set apart'));
      const item = items.get(textOf(r, 'sku'));
      if (item) faults.push(...this.rowFaults(r, item, packs, lots, memory));
    }
    return faults;
  }

  private rowFaults(
    r: ImportRow,
    item: ItemFact,
    packs: ReadonlyMap<string, number>,
    lots: ReadonlyMap<string, LotFact>,
    memory: Memory,
  ): RowFault[] {
    const [lot, expires, holds] = [textOf(r, 'lot'), textOf(r, 'expires'), numberOf(r, 'holds') ?? 1];
    if (!packs.has(`${item.id}/${holds}`))
      return [fault(r, 'holds', holds, `${item.sku} has no pack of ${holds}. Take pack units in first`)];
    if (item.tracking === 'none')
      return lot === '' ? [] : [fault(r, 'lot', lot, `${item.sku} is not kept by lot. Leave this empty, or change how it is tracked`)];
    if (lot === '')
      return [
        fault(r, 'lot', lot, item.tracking === 'serial' ? `${item.sku} needs a serial number` : `${item.sku} is kept by lot. Name the lot`),
      ];
    const known = lots.get(`${item.id}/${lot.toUpperCase()}`);
    if (item.tracking === 'serial') {
      if ((numberOf(r, 'count') ?? 0) * holds !== 1)
        return [fault(r, 'count', numberOf(r, 'count'), 'A serial number is one piece. Give each piece a row')];
      if (known?.here || !memory.first('serial', `${item.id}/${lot.toUpperCase()}`))
        return [fault(r, 'lot', lot, `Serial number ${lot} is in the house already, or in an earlier row`)];
    }
    if (item.tracking === 'lot-expiry') {
      if (expires === '') return [fault(r, 'expires', '', `${item.sku} is kept by lot and date. Give the date`)];
      const date = known?.expires ?? null;
      if (date !== null && date !== expires) return [fault(r, 'expires', expires, `Lot ${lot} is known with the date ${date}`)];
      const first = `${item.id}/${lot.toUpperCase()}`;
      if (!memory.first('lot-date', `${first}=${expires}`)) return [];
      if (!memory.first('lot', first)) return [fault(r, 'expires', expires, `Lot ${lot} has another date in an earlier row`)];
    }
    return [];
  }

  async write(tx: Tx, act: Act, batch: readonly ImportRow[], log: MadeLog): Promise<void> {
    const items = await this.items(tx, batch);
    const places = await this.places(tx, batch);
    const idOf = (r: ImportRow) => items.get(textOf(r, 'sku'))?.id ?? 0;
    await this.makeLots(tx, batch, items);
    const lots = await this.lots(tx, items, batch);
    const from = await this.ledger.outside(tx, 'count-difference');
    const movements = batch.map((r): Movement => ({
      itemId: idOf(r),
      lotId: lots.get(`${idOf(r)}/${textOf(r, 'lot').toUpperCase()}`)?.id ?? 0,
      condition: (textOf(r, 'condition') || 'good') as Condition,
      fromPlaceId: from,
      toPlaceId: places.get(textOf(r, 'place').toUpperCase())?.id ?? 0,
      units: (numberOf(r, 'count') ?? 0) * (numberOf(r, 'holds') ?? 1),
    }));
    const unitCosts = batch.map((r) => textOf(r, 'cost') || null);
    const { ids, changes } = await this.ledger.post(tx, act, movements, { task: 'open', document: 'OPENING', unitCosts });
    await this.allocation.settle(tx, changes);
    log.made += ids.length;
    await log.note('movements', ids);
    const costed = batch.filter((r) => has(r, 'cost') && textOf(r, 'cost') !== '');
    await log.change('item', 'id', [...new Set(costed.map(idOf))], async () => {
      for (const r of costed) await keepFirstCost(tx, idOf(r), textOf(r, 'cost'));
    });
    await refreshLacks(tx, costed.map(idOf));
  }

  /** Takes back the movements of an import by their opposites. */
  async takeBack(tx: Tx, act: Act, movementIds: unknown): Promise<void> {
    await this.allocation.settle(tx, await this.ledger.reverse(tx, act, movementIds as number[], 'OPENING'));
  }

  undone(tx: Tx): Promise<void> {
    return refreshLacks(tx, 'all');
  }

  async *read(tx: Pick<Tx, 'query'>, person: Person): AsyncIterable<Cells> {
    for (let from = 0; ; from += 2000) {
      const found = await rows<Record<string, unknown>>(
        tx,
        `SELECT i.sku, p.code AS place, l.code AS lot, l.expires_on AS expires, b.stock_condition AS \`condition\`, b.units, IF(v.units > 0, v.value / v.units, i.cost) AS cost FROM balance b JOIN item i ON i.id = b.item_id LEFT JOIN cost_pool v ON v.item_id = i.id
         JOIN place p ON p.id = b.place_id AND p.site_id IN (?) LEFT JOIN lot l ON l.id = b.lot_id WHERE b.units > 0 AND p.kind IN (?) ORDER BY i.sku, p.code, l.code, b.stock_condition LIMIT 2000 OFFSET ?`,
        [[0, ...person.siteIds], [...HOLDS], from],
      );
      for (const r of found) {
        yield {
          sku: text(r['sku']),
          place: text(r['place']),
          lot: text(r['lot']),
          expires: text(r['expires']),
          condition: text(r['condition']),
          count: text(r['units']),
          holds: '1',
          ...(person.seesCosts ? { cost: trimmed(r['cost'] as string | null) } : {}),
        };
      }
      if (found.length < 2000) return;
    }
  }

  private async items(tx: Tx, batch: readonly ImportRow[]): Promise<Map<string, ItemFact>> {
    const skus = batch.map((r) => textOf(r, 'sku'));
    const found = await rows<ItemFact>(tx, `SELECT id, sku, tracking FROM item WHERE sku IN (${marks(skus)})`, skus);
    return new Map(found.map((f) => [f.sku, f]));
  }

  private async places(tx: Tx, batch: readonly ImportRow[]) {
    const codes = batch.map((r) => textOf(r, 'place'));
    const found = await rows<{ id: number; code: string; kind: string; site_id: number }>(
      tx,
      `SELECT id, code, kind, site_id FROM place WHERE site_id IS NOT NULL AND code IN (${marks(codes)})`,
      codes,
    );
    return new Map(found.map((f) => [f.code.toUpperCase(), f]));
  }

  private async lots(tx: Tx, items: ReadonlyMap<string, ItemFact>, batch: readonly ImportRow[]): Promise<Map<string, LotFact>> {
    const ids = [...items.values()].map((i) => i.id);
    const codes = batch.map((r) => textOf(r, 'lot')).filter(Boolean);
    if (codes.length === 0) return new Map();
    const found = await rows<Omit<LotFact, 'here'> & { item_id: number; code: string; here: number }>(
      tx,
      `SELECT l.id, l.item_id, l.code, l.expires_on AS expires, EXISTS (SELECT 1 FROM balance b WHERE b.item_id = l.item_id AND b.lot_id = l.id AND b.bounded = 1 AND b.units > 0) AS here
       FROM lot l WHERE l.item_id IN (${marks(ids)}) AND l.code IN (${marks(codes)})`,
      [...ids, ...codes],
    );
    return new Map(found.map((f) => [`${f.item_id}/${f.code.toUpperCase()}`, { ...f, here: Number(f.here) === 1 }]));
  }

  private async makeLots(tx: Tx, batch: readonly ImportRow[], items: ReadonlyMap<string, ItemFact>): Promise<void> {
    const wanted = batch.flatMap((r): [number, string, string | null][] => {
      const item = items.get(textOf(r, 'sku'));
      if (!item || item.tracking === 'none' || textOf(r, 'lot') === '') return [];
      return [[item.id, textOf(r, 'lot'), item.tracking === 'lot-expiry' ? textOf(r, 'expires') || null : null]];
    });
    await openLots(tx, wanted);
  }
}

interface LotFact {
  id: number;
  expires: string | null;
  here: boolean;
}
