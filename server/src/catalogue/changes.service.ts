import { Injectable, type OnModuleInit } from '@nestjs/common';
import { readDecimal, readWhole, readYesNo } from '@vectrum/core/cells';
import { ActivityService, UndoService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insertMany,
  marks,
  mustBeAt,
  mustMatch,
  notFound,
  Problem,
  rows,
  type Tx,
} from '../platform/index.js';
import { ROTATIONS, STORAGES } from './kinds.js';
import { refreshLacks } from './completeness.js';
import { homeAt } from './item-sets.js';
import type { ChangeFieldDto, ChangeHomesDto, ChangeManyDto, ListField } from './items.dto.js';

type Before = Record<string, string | number | null>;
interface Undo extends Record<string, unknown> {
  field: ListField;
  siteId: number | null;
  /** Item id and what stood there before, for each item that was changed. */
  before: [number, string | number | null][];
}

/** Columns of `item` that a list may change, and what each accepts. */
const COLUMNS: Readonly<Partial<Record<ListField, { column: string; read: (t: string) => string | number | null }>>> = {
  name: { column: 'name', read: (t) => t || wrong('An item needs a name') },
  className: { column: 'class', read: (t) => (t.length > 40 ? wrong('A class has up to 40 characters') : t) },
  cost: { column: 'cost', read: (t) => (t === '' ? null : cost(t)) },
  rotation: { column: 'rotation', read: (t) => choice(t, ROTATIONS) },
  storage: { column: 'storage', read: (t) => choice(t, STORAGES) },
  neverHoldsUp: { column: 'never_holds_up', read: (t) => ((readYesNo(t) ?? wrong('Type yes or no')) ? 1 : 0) },
};
type SiteColumn = 'home_place_id' | 'reorder_point' | 'order_up_to' | 'refill_below' | 'refill_up_to';
const SITE_COLUMNS: Readonly<Partial<Record<ListField, SiteColumn>>> = {
  home: 'home_place_id',
  reorderPoint: 'reorder_point',
  orderUpTo: 'order_up_to',
  refillBelow: 'refill_below',
  refillUpTo: 'refill_up_to',
};

function wrong(says: string): never {
  throw badForm({ value: says });
}
function cost(t: string): string {
  const d = readDecimal(t);
  return d !== null && /^\d{1,10}(\.\d{1,6})?$/.test(d) ? d : wrong('A cost is a number of up to 6 decimal places');
}
function choice<T extends string>(t: string, choices: readonly T[]): T {
  return choices.find((c) => c === t) ?? wrong(`Choose one of: ${choices.join(', ')}`);
}

/** Changes one field of one item or of many, from the list, and takes it back. */
@Injectable()
export class ItemChanges implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
  ) {}

  onModuleInit(): void {
    this.undo.register('item-field', 'items', (tx, act, payload) => this.takeBack(tx, act, payload as Undo));
  }

  one(act: Act, sku: string, version: number, input: ChangeFieldDto): Promise<{ changed: number; activityId: number }> {
    return this.commands.run(act, 'item.field', { sku, version, input }, async (tx) => {
      const item = (await rows<{ id: number; version: number }>(tx, 'SELECT id, version FROM item WHERE sku = ? FOR UPDATE', [sku]))[0];
      if (!item) throw notFound(`Item ${sku}`);
      mustMatch(item.version, version);
      return this.change(tx, act, [item.id], input, `${sku}: ${says(input)}`, sku);
    });
  }

  many(act: Act, input: ChangeManyDto): Promise<{ changed: number; activityId: number }> {
    return this.commands.run(act, 'items.field', input, async (tx) => {
      const skus = [...new Set(input.skus.map((s) => s.toUpperCase()))];
      const items = await rows<{ id: number; sku: string }>(
        tx,
        `SELECT id, sku FROM item WHERE sku IN (${marks(skus)}) ORDER BY id FOR UPDATE`,
        skus,
      );
      const missing = skus.find((s) => !items.some((i) => i.sku === s));
      if (missing) throw notFound(`Item ${missing}`);
      return this.change(
        tx,
        act,
        items.map((i) => i.id),
        input,
        `${items.length} items: ${says(input)}`,
        null,
      );
    });
  }

  /** Gives goods of a site other pick faces, all at once, so that two may change places; one undo takes it all back. */
  homes(act: Act, { siteId, homes }: ChangeHomesDto): Promise<{ changed: number; activityId: number }> {
    mustBeAt(act.person, siteId);
    return this.commands.run(act, 'items.homes', { siteId, homes }, async (tx) => {
      const bySku = new Map(homes.map((h) => [h.sku.toUpperCase(), h.place]));
      const items = await rows<{ id: number; sku: string; was: number | null }>(
        tx,
        `SELECT i.id, i.sku, x.home_place_id AS was FROM item i LEFT JOIN item_site x ON x.item_id = i.id AND x.site_id = ? WHERE i.sku IN (${marks([...bySku])}) ORDER BY i.id FOR UPDATE`,
        [siteId, ...bySku.keys()],
      );
      const missing = [...bySku.keys()].find((s) => !items.some((i) => i.sku === s));
      if (missing) throw notFound(`Item ${missing}`);
      const values: [number, number][] = [];
      for (const { id, sku } of items) values.push([id, await homeAt(tx, siteId, bySku.get(sku) ?? '')]);
      await this.setSite(tx, 'home_place_id', siteId, values);
      await tx.query(
        `UPDATE item SET version = version + 1 WHERE id IN (${marks(items)})`,
        items.map((i) => i.id),
      );
      const undo: Undo = { field: 'home', siteId, before: items.map((i) => [i.id, i.was]) };
      const title = items.length === 1 ? `${items[0]?.sku ?? ''}: another pick face` : `${items.length} items: other pick faces`;
      const activityId = await this.activity.record(tx, act, { kind: 'item-field', glyph: 'full', title, document: null, siteId, undo });
      return { changed: items.length, activityId };
    });
  }

  private async change(tx: Tx, act: Act, ids: readonly number[], input: ChangeFieldDto, title: string, document: string | null) {
    if (input.field === 'cost' && !act.person.seesCosts)
      throw new Problem(403, 'not-allowed', 'Costs are changed by those who may see them');
    const siteId = SITE_COLUMNS[input.field] ? siteOf(act, input) : null;
    const before = await this.write(tx, ids, input.field, siteId, input.value.trim());
    await tx.query(`UPDATE item SET version = version + 1 WHERE id IN (${marks(ids)})`, [...ids]);
    if (input.field === 'cost') await refreshLacks(tx, ids);
    const undo: Undo = { field: input.field, siteId, before };
    // What a cost was is kept for its undoing only; the title tells no figure.
    const activityId = await this.activity.record(tx, act, { kind: 'item-field', glyph: 'full', title, document, siteId, undo });
    return { changed: before.length, activityId };
  }

  /** Writes the value; returns what stood there before, for the items where it differs. */
  private async write(tx: Tx, ids: readonly number[], field: ListField, siteId: number | null, value: string): Promise<Undo['before']> {
    const column = COLUMNS[field];
    if (column) {
      const wanted = column.read(value);
      const old = await rows<Before>(
        tx,
        `SELECT id, \`${column.column}\` AS was FROM item WHERE id IN (${marks(ids)}) AND NOT (\`${column.column}\` <=> ?)`,
        [...ids, wanted],
      );
      await tx.query(`UPDATE item SET \`${column.column}\` = ? WHERE id IN (${marks(ids)})`, [wanted, ...ids]);
      return old.map((o) => [Number(o['id']), o['was'] ?? null]);
    }
    if (field === 'addTag' || field === 'dropTag') return this.tag(tx, ids, field, value.toLowerCase());
    return this.writeSite(tx, ids, field, siteId ?? 0, value);
  }

  private async tag(tx: Tx, ids: readonly number[], field: 'addTag' | 'dropTag', tag: string): Promise<Undo['before']> {
    if (tag === '' || tag.length > 30) wrong('A tag has 1 to 30 characters');
    const have = await rows<{ id: number }>(tx, `SELECT item_id AS id FROM item_tag WHERE tag = ? AND item_id IN (${marks(ids)})`, [
      tag,
      ...ids,
    ]);
    const had = new Set(have.map((h) => h.id));
    const touched = ids.filter((id) => had.has(id) === (field === 'dropTag'));
    if (field === 'addTag')
      await insertMany(
        tx,
        'item_tag',
        ['item_id', 'tag'],
        touched.map((id) => [id, tag]),
      );
    else await tx.query(`DELETE FROM item_tag WHERE tag = ? AND item_id IN (${marks(touched)})`, [tag, ...touched]);
    return touched.map((id) => [id, tag]);
  }

  private async writeSite(tx: Tx, ids: readonly number[], field: ListField, siteId: number, value: string): Promise<Undo['before']> {
    const column = SITE_COLUMNS[field];
    if (!column) throw badForm({ field: `${field} cannot be changed here` });
    const n = field === 'home' ? null : readWhole(value);
    if (field !== 'home' && value !== '' && (n === null || n < 0)) wrong('Type a whole number of nought or more');
    const wanted = value === '' ? null : field === 'home' ? await homeAt(tx, siteId, value) : n;
    const old = await rows<Before>(
      tx,
      `SELECT i.id, x.\`${column}\` AS was FROM item i LEFT JOIN item_site x ON x.item_id = i.id AND x.site_id = ? WHERE i.id IN (${marks(ids)}) AND NOT (x.\`${column}\` <=> ?)`,
      [siteId, ...ids, wanted],
    );
    await this.setSite(
      tx,
      column,
      siteId,
      old.map((o) => [Number(o['id']), wanted]),
    );
    return old.map((o) => [Number(o['id']), o['was'] ?? null]);
  }

  private async setSite(
    tx: Tx,
    column: SiteColumn | 'cost',
    siteId: number,
    values: readonly (readonly [number, string | number | null])[],
  ): Promise<void> {
    const ids = values.map(([id]) => id);
    await insertMany(
      tx,
      'item_site',
      ['item_id', 'site_id', column],
      values.map(([id, v]) => [id, siteId, v]),
      `ON DUPLICATE KEY UPDATE \`${column}\` = VALUES(\`${column}\`)`,
    ).catch((thrown: unknown) => {
      if (String(thrown).includes('ck_item_site_levels'))
        throw badState('One of these would have a reorder point above its order-up-to level. Change that first');
      if (String(thrown).includes('ck_item_site_refill'))
        throw badState('One of these would be refilled below more than it is filled up to. Change that first');
      throw thrown;
    });
    await tx.query(
      `DELETE FROM item_site WHERE site_id = ? AND item_id IN (${marks(ids)}) AND home_place_id IS NULL AND cost IS NULL AND reorder_point IS NULL AND order_up_to IS NULL AND refill_below IS NULL AND refill_up_to IS NULL`,
      [siteId, ...ids],
    );
  }

  private async takeBack(tx: Tx, act: Act, undo: Undo): Promise<void> {
    const ids = undo.before.map(([id]) => id);
    if (ids.length === 0) return;
    await rows(tx, `SELECT id FROM item WHERE id IN (${marks(ids)}) ORDER BY id FOR UPDATE`, ids);
    if (undo.field === 'cost' && !act.person.seesCosts)
      throw new Problem(403, 'not-allowed', 'Costs are changed by those who may see them');
    const column = COLUMNS[undo.field]?.column;
    const siteColumn = SITE_COLUMNS[undo.field];
    if (column) for (const [id, was] of undo.before) await tx.query(`UPDATE item SET \`${column}\` = ? WHERE id = ?`, [was, id]);
    else if (siteColumn) await this.setSite(tx, siteColumn, undo.siteId ?? 0, undo.before);
    else await this.tag(tx, ids, undo.field === 'addTag' ? 'dropTag' : 'addTag', String(undo.before[0]?.[1]));
    await tx.query(`UPDATE item SET version = version + 1 WHERE id IN (${marks(ids)})`, ids);
    if (undo.field === 'cost') await refreshLacks(tx, ids);
  }
}

function siteOf(act: Act, input: ChangeFieldDto): number {
  if (!input.siteId) throw badForm({ siteId: 'Say at which site' });
  mustBeAt(act.person, input.siteId);
  return input.siteId;
}

const WORDS: Readonly<Record<ListField, string>> = {
  name: 'name',
  className: 'class',
  cost: 'cost',
  rotation: 'what goes first',
  storage: 'storage',
  neverHoldsUp: 'never holds up an order',
  addTag: 'tag added',
  dropTag: 'tag taken off',
  home: 'home bin',
  reorderPoint: 'reorder point',
  orderUpTo: 'order up to',
  refillBelow: 'refill below',
  refillUpTo: 'refill up to',
};
const says = (input: ChangeFieldDto) =>
  input.field === 'cost' ? 'cost changed' : `${WORDS[input.field]} ${input.value.trim() === '' ? 'emptied' : input.value.trim()}`;
