import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { kindsFor } from '@vectrum/core/places';
import { ActivityService } from '../activity/index.js';
import { spareSql } from '../allocation/index.js';
import { LedgerService } from '../stock/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  mustBeAt,
  mustMatch,
  notFound,
  num,
  one,
  type Person,
  remove,
  rows,
  sqlList,
  type Tx,
  update,
} from '../platform/index.js';
import type { BoxDto, BoxStockDto, EditBoxDto, NewBoxDto } from './carriers.dto.js';

interface OfOrder {
  code: string;
  site_id: number;
}

/** Where boxes that are kept as an item lie at a site, unspoken for: where they are taken from first is first, emptiest before full. */
const WHERE_BOXES_LIE = `SELECT b.place_id AS placeId, b.lot_id AS lotId FROM balance b JOIN place p ON p.id = b.place_id
  WHERE b.item_id = ? AND b.stock_condition = 'good' AND b.bounded = 1 AND b.units > 0 AND p.site_id = ? AND p.kind IN ${sqlList(['packing-table', ...kindsFor('shelf')])} AND ${spareSql('b')} > 0
  ORDER BY p.kind = 'packing-table' DESC, p.pickable DESC, b.units, b.place_id LIMIT 1`;
/** A plain count that an item has replaced stands still: it is what was counted before, not what comes and goes now. */
const PLAIN_COUNT_UP =
  'UPDATE carton_stock k JOIN carton c ON c.code = k.carton AND c.item_id IS NULL SET k.units = k.units + 1 WHERE k.carton = ? AND k.site_id = ?';
const STOCK = `SELECT k.carton AS box, k.site_id AS siteId, s.name AS site, k.units FROM carton_stock k JOIN carton c ON c.code = k.carton AND c.item_id IS NULL JOIN site s ON s.id = k.site_id WHERE k.site_id IN (?)
  UNION ALL SELECT c.code, t.site_id, s.name, t.on_hand FROM carton c JOIN site_stock t ON t.item_id = c.item_id JOIN site s ON s.id = t.site_id WHERE t.site_id IN (?) ORDER BY siteId`;

/** The boxes that parcels are packed in: how large, how heavy, what they cost, how many are left at each site. */
@Injectable()
export class BoxesService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly ledger: LedgerService,
  ) {}

  async list(person: Person): Promise<BoxDto[]> {
    const [found, stock] = await Promise.all([
      rows<BoxDto & { cost: string }>(
        this.source,
        'SELECT c.code, c.length_mm AS lengthMm, c.width_mm AS widthMm, c.height_mm AS heightMm, c.tare_g AS tareG, c.most_g AS mostG, c.cost, c.low_at AS lowAt, i.sku, c.version FROM carton c LEFT JOIN item i ON i.id = c.item_id ORDER BY c.length_mm * c.width_mm * c.height_mm, c.code',
      ),
      rows<BoxStockDto & { box: string }>(this.source, STOCK, [
        [0, ...person.siteIds],
        [0, ...person.siteIds],
      ]),
    ]);
    return found.map(({ cost, ...b }) => ({
      ...b,
      ...(person.seesCosts ? { cost: cost.replace(/\.?0+$/, '') || '0' } : {}),
      stock: stock.filter((k) => k.box === b.code).map(({ box: _, ...k }) => ({ ...k, units: num(k.units) })),
    }));
  }

  async sheet(person: Person, code: string): Promise<BoxDto> {
    const found = (await this.list(person)).find((b) => b.code === code);
    if (!found) throw notFound(`Box ${code}`);
    return found;
  }

  add(act: Act, input: NewBoxDto): Promise<{ code: string }> {
    return this.commands.run(act, 'box.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'carton', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      await insert(tx, 'carton', { code, ...columns(act, input), item_id: await itemOf(tx, input.sku) });
      await this.writeStock(tx, act, code, input);
      await this.activity.record(tx, act, { kind: 'carrier', glyph: 'full', title: `Box ${code} made`, document: code });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditBoxDto): Promise<{ code: string }> {
    return this.commands.run(act, 'box.edit', { code, version, input }, async (tx) => {
      const box = await find(tx, 'carton', { code }, 'lock');
      if (!box) throw notFound(`Box ${code}`);
      mustMatch(box.version, version);
      await update(tx, 'carton', { code }, { ...columns(act, input), item_id: await itemOf(tx, input.sku), version: version + 1 });
      await this.writeStock(tx, act, code, input);
      await this.activity.record(tx, act, { kind: 'carrier', glyph: 'full', title: `Box ${code} changed`, document: code });
      return { code };
    });
  }

  /**
   * A box was taken at a site's table: out of a bin where it is kept as an item, otherwise off what was counted. Nobody waits for a
   * count: where none is known to be there, nothing is taken.
   */
  async taken(tx: Tx, act: Act, code: string, { code: document, site_id: siteId }: OfOrder): Promise<void> {
    // Two tables that take the last of a bin: the second looks once the first has taken it, and goes on without.
    const box = await find(tx, 'carton', { code }, 'lock');
    if (box?.item_id == null) {
      await tx.query('UPDATE carton_stock SET units = units - 1 WHERE carton = ? AND site_id = ? AND units > 0', [code, siteId]);
      return;
    }
    const from = await one<{ placeId: number; lotId: number }>(tx, WHERE_BOXES_LIE, [box.item_id, siteId]);
    if (!from) return;
    const toPlaceId = await this.ledger.outside(tx, 'customer');
    const goods = { itemId: box.item_id, lotId: from.lotId, condition: 'good' as const, units: 1 };
    await this.ledger.post(tx, act, [{ ...goods, fromPlaceId: from.placeId, toPlaceId }], { task: 'box', document, how: null });
  }

  /** A box that was taken is there again, in its bin where it is kept as an item. What was never counted stays uncounted. */
  async putBack(tx: Tx, act: Act, code: string, { code: document, site_id: siteId }: OfOrder): Promise<void> {
    await tx.query(PLAIN_COUNT_UP, [code, siteId]);
    const taken = await one<{ id: string }>(
      tx,
      `SELECT MAX(m.id) AS id FROM movement m JOIN carton c ON c.item_id = m.item_id WHERE c.code = ? AND m.document = ? AND m.task = 'box' AND m.reverses_id IS NULL
         AND NOT EXISTS (SELECT 1 FROM movement r WHERE r.reverses_id = m.id)`,
      [code, document],
    );
    if (taken?.id) await this.ledger.reverse(tx, act, [Number(taken.id)], document);
  }

  private async writeStock(tx: Tx, act: Act, code: string, { stock, sku }: EditBoxDto): Promise<void> {
    // What is kept as an item is received, counted and moved as one.
    if (sku) return;
    for (const { siteId, units } of stock) {
      mustBeAt(act.person, siteId);
      await remove(tx, 'carton_stock', { carton: code, site_id: siteId });
      await insert(tx, 'carton_stock', { carton: code, site_id: siteId, units });
    }
  }
}

async function itemOf(tx: Tx, sku: string | null): Promise<number | null> {
  if (!sku) return null;
  const item = await one<{ id: number; kind: string }>(tx, 'SELECT id, kind FROM item WHERE sku = ?', [sku]);
  if (!item) throw badForm({ sku: `There is no item ${sku}. Make it under Items first` });
  if (item.kind === 'kit') throw badForm({ sku: `${sku} is a kit. A box is one thing` });
  return item.id;
}

/** Who may not see costs cannot change them either. */
const columns = (act: Act, b: EditBoxDto) => ({
  length_mm: b.lengthMm,
  width_mm: b.widthMm,
  height_mm: b.heightMm,
  tare_g: b.tareG,
  most_g: b.mostG,
  low_at: b.lowAt,
  ...(b.cost !== undefined && act.person.seesCosts ? { cost: b.cost } : {}),
});
