import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  mustMatch,
  notFound,
  num,
  one,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import type { EditInsertRuleDto, InsertItemDto, InsertRuleDto, InsertRulesDto } from './insert-rules.dto.js';

/** An order as the rules look at it. */
interface ForWhom {
  channelId: number;
  customerId: number | null;
  email: string;
  /** Its row, where it is written down already. */
  orderId?: number;
  lines: readonly { itemId: number | null; quantity: number; price: string }[];
}
/** Goods that go along, as a line of an order that costs nothing. */
export interface GoesAlong {
  channelSku: string;
  itemId: number;
  quantity: number;
  factor: number;
  price: string;
  along: true;
}

/** Which inserts go with which orders: a card with every parcel of a shop, a sample with the first order. They never hold one up. */
@Injectable()
export class InsertRules {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async list(): Promise<InsertRulesDto> {
    const [rules, items] = await Promise.all([
      rows<Omit<InsertRuleDto, 'firstOnly'> & { firstOnly: number }>(
        this.source,
        `SELECT r.id, r.item_id AS itemId, i.sku, i.name, r.channel_id AS channelId, c.name AS channel, r.units, r.from_value AS fromValue, r.first_only AS firstOnly, r.version
         FROM insert_rule r JOIN item i ON i.id = r.item_id LEFT JOIN channel c ON c.id = r.channel_id ORDER BY i.sku, r.id`,
      ),
      rows<InsertItemDto>(this.source, `SELECT id, sku, name FROM item WHERE never_holds_up = 1 AND kind <> 'kit' ORDER BY sku LIMIT 1000`),
    ]);
    return {
      rules: rules.map((r) => ({
        ...r,
        fromValue: r.fromValue === null ? null : String(Number(r.fromValue)),
        firstOnly: num(r.firstOnly) === 1,
      })),
      items,
    };
  }

  add(act: Act, input: EditInsertRuleDto): Promise<{ id: number }> {
    return this.commands.run(act, 'insert-rule.add', input, async (tx) => {
      const { columns, sku } = await read(tx, input);
      const id = await insert(tx, 'insert_rule', columns);
      await this.say(tx, act, `${sku} goes with orders`);
      return { id };
    });
  }

  edit(act: Act, id: number, version: number, input: EditInsertRuleDto): Promise<{ id: number }> {
    return this.commands.run(act, 'insert-rule.edit', { id, version, input }, async (tx) => {
      const rule = await find(tx, 'insert_rule', { id }, 'lock');
      if (!rule) throw notFound('That rule');
      mustMatch(rule.version, version);
      const { columns, sku } = await read(tx, input);
      await update(tx, 'insert_rule', { id }, { ...columns, version: version + 1 });
      await this.say(tx, act, `With which orders ${sku} goes has changed`);
      return { id };
    });
  }

  drop(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'insert-rule.drop', { id }, async (tx) => {
      const rule = await one<{ sku: string }>(
        tx,
        'SELECT i.sku FROM insert_rule r JOIN item i ON i.id = r.item_id WHERE r.id = ? FOR UPDATE',
        [id],
      );
      if (!rule) throw notFound('That rule');
      await remove(tx, 'insert_rule', { id });
      await this.say(tx, act, `${rule.sku} goes with orders no more by this rule`);
    });
  }

  /** What goes along with an order that is being written, beyond what it asks for itself. */
  async goAlong(tx: Tx, order: ForWhom): Promise<GoesAlong[]> {
    const found = await rows<{ itemId: number; sku: string; units: number; fromValue: string | null; firstOnly: number }>(
      tx,
      'SELECT r.item_id AS itemId, i.sku, r.units, r.from_value AS fromValue, r.first_only AS firstOnly FROM insert_rule r JOIN item i ON i.id = r.item_id AND i.never_holds_up = 1 WHERE r.channel_id IS NULL OR r.channel_id = ? ORDER BY r.id',
      [order.channelId],
    );
    if (found.length === 0) return [];
    const value = order.lines.reduce((sum, l) => sum + l.quantity * Number(l.price), 0);
    const isFirst = found.some((r) => num(r.firstOnly) === 1) && (await this.isFirst(tx, order));
    const along = new Map<number, GoesAlong>();
    for (const rule of found) {
      if (rule.fromValue !== null && value < Number(rule.fromValue)) continue;
      if (num(rule.firstOnly) === 1 && !isFirst) continue;
      if (order.lines.some((l) => l.itemId === rule.itemId)) continue;
      const quantity = Math.max(rule.units, along.get(rule.itemId)?.quantity ?? 0);
      along.set(rule.itemId, { channelSku: rule.sku, itemId: rule.itemId, quantity, factor: 1, price: '0', along: true });
    }
    return [...along.values()];
  }

  /** Whether whoever orders has no other order that was not cancelled: by account, else by mail. Somebody without either is new each time. */
  private async isFirst(tx: Tx, { customerId, email, orderId = 0 }: ForWhom): Promise<boolean> {
    if (customerId === null && email === '') return true;
    const by = customerId === null ? 'email' : 'customer_id';
    return !(await one(tx, `SELECT id FROM sales_order WHERE ${by} = ? AND cancelled_at IS NULL AND id <> ? LIMIT 1`, [
      customerId ?? email,
      orderId,
    ]));
  }

  private async say(tx: Tx, act: Act, title: string): Promise<void> {
    await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title });
  }
}

async function read(tx: Tx, input: EditInsertRuleDto) {
  const item = await find(tx, 'item', { id: input.itemId });
  if (!item) throw badForm({ itemId: 'Choose what goes along' });
  if (item.never_holds_up !== 1 || item.kind === 'kit')
    throw badForm({ itemId: `${item.sku} would hold up orders. Tick “Never holds up an order” on the item first` });
  if (input.channelId !== null && !(await find(tx, 'channel', { id: input.channelId })))
    throw badForm({ channelId: 'That channel is gone' });
  const columns = {
    item_id: input.itemId,
    channel_id: input.channelId,
    units: input.units,
    from_value: input.fromValue === null ? null : input.fromValue.replace(',', '.'),
    first_only: input.firstOnly,
  };
  return { columns, sku: item.sku };
}
