import { Injectable } from '@nestjs/common';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { countOf } from '@vectrum/core/quantity';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { changeOrder, changeLine, followOwnHolds, keepChanges, OrderStates, OrderWriter } from '../orders/index.js';
import { freeTotes, holdRounds, RecallService } from '../picking/index.js';
import {
  type DocumentChange,
  type Act,
  badForm,
  badState,
  CommandLog,
  findAll,
  mustBeAt,
  NEXT,
  type Row,
  rows,
  siteDay,
  timeText,
  type Tx,
} from '../platform/index.js';
import { accountOf, keptLines, type ReadLine } from './keyed.js';
import { openOrder } from './open-order.js';
import type { EditedOrderDto, EditOrderDto, OrderHeadDto } from './order-desk.dto.js';
import { type HeldGoods, TakingBack, toPutAway } from './taking-back.js';

/** All of an order but its lines; the account by its code, or by its number where it stays. */
export type OrderHead = Omit<OrderHeadDto, 'lines'> & { accountId?: number | null };

const FARTHEST_MS = 366 * 86_400_000;
const CHANGEABLE: readonly OrderState[] = ['quote', ...ordersIn('live')];

/** Changes orders, also those that are being picked or packed: the floor is told, and asked to put away what is wanted no longer. */
@Injectable()
export class EditingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly writer: OrderWriter,
    private readonly taking: TakingBack,
    private readonly recalls: RecallService,
    private readonly states: OrderStates,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
  ) {}

  edit(act: Act, code: string, version: number, input: EditOrderDto): Promise<EditedOrderDto> {
    return this.commands.run(act, 'order.edit', { code, version, input }, async (tx) => {
      await holdRounds(tx, code);
      const order = await openOrder(tx, act, code, version);
      const there = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'line');
      return { code, floor: await this.apply(tx, act, order, input, await keptLines(tx, input.lines, there), input.why.trim()) };
    });
  }

  /**
   * Makes an order what it is to be, head and lines. Its rounds and its row are held. `act` is null where its channel says so. Returns what
   * the floor is asked to put away.
   */
  async apply(
    tx: Tx,
    act: Act | null,
    order: Row<'sales_order'>,
    head: OrderHead,
    wanted: readonly ReadLine[],
    why: string,
  ): Promise<string> {
    if (!CHANGEABLE.includes(order.state as OrderState)) throw badState(`${order.code} is ${order.state}. It can be changed no more`);
    const by = act?.person.id ?? null;
    await rows(tx, 'SELECT id FROM parcel WHERE order_id = ? ORDER BY id FOR UPDATE', [order.id]);
    const changes = await this.head(tx, act, order, head);
    const { taken, itemIds, lineChanges } = await this.lines(tx, order, head.siteId, wanted);
    const kept = await keepChanges(tx, order.id, by, [...changes, ...lineChanges], why);
    await followOwnHolds(tx, { id: order.id, addressLine: head.addressLine, postcode: head.postcode }, by);
    await this.recalls.endEmpty(tx, order.id);
    await freeTotes(tx, order.id);
    await this.states.refresh(tx, [order.id]);
    const floor = toPutAway(taken);
    if (kept.length > 0)
      await this.activity.record(tx, act, {
        kind: 'order-change',
        glyph: 'half',
        title: `${order.code} changed${act ? '' : ' by its channel'}`,
        detail: [kept.map(changeWords).slice(0, 4).join(', '), floor, why].filter(Boolean).join('. '),
        document: order.code,
        siteId: order.site_id,
      });
    if (order.state !== 'quote') {
      const sites = [...new Set([order.site_id, head.siteId])];
      await this.allocation.settle(
        tx,
        sites.flatMap((siteId) => itemIds.map((itemId) => ({ siteId, itemId }))),
      );
    }
    return floor;
  }

  /** Promises an open order for another time; it waits for goods in the place that this gives it. */
  promise(act: Act, code: string, version: number, at: Date): Promise<{ code: string }> {
    mustBePromisable(at, 'at');
    return this.commands.run(act, 'order.promise', { code, version, at: at.toISOString() }, async (tx) => {
      await this.promiseFor(tx, act, await openOrder(tx, act, code, version), at);
      return { code };
    });
  }

  /** Promises an order that is held open for another time, and gives what is free to those who wait in their new turn. */
  async promiseFor(tx: Tx, act: Act, order: Row<'sales_order'>, at: Date): Promise<void> {
    const { code } = order;
    if (!ordersIn('promisable').includes(order.state as OrderState)) throw badState(`${code} is ${order.state} already`);
    const { timeZone } = await siteDay(tx, order.site_id);
    await changeOrder(tx, order.id, { promised_at: at, version: NEXT });
    const change = { line: null, what: 'promised', was: timeText(order.promised_at, timeZone), becomes: timeText(at, timeZone) };
    await keepChanges(tx, order.id, act.person.id, [change]);
    await this.activity.record(tx, act, {
      kind: 'order-change',
      glyph: 'half',
      title: `${code} promised for ${change.becomes}`,
      detail: `before: ${change.was}`,
      document: code,
      siteId: order.site_id,
    });
    await this.allocation.settleOrder(tx, order);
  }

  /** Changes all but the lines; returns what changed. */
  private async head(tx: Tx, act: Act | null, order: Row<'sales_order'>, input: OrderHead): Promise<DocumentChange[]> {
    if (input.siteId !== order.site_id) {
      if (act) mustBeAt(act.person, input.siteId);
      if (ordersIn('at work').includes(order.state as OrderState))
        throw badForm({ siteId: `${order.code} is ${order.state} at its site already` });
    }
    const promised = input.promisedAt ?? order.promised_at;
    // A channel's promise is the channel's, also where it has passed.
    if (act && promised.getTime() !== order.promised_at.getTime()) mustBePromisable(promised, 'promisedAt');
    const accountId = input.accountId === undefined ? ((await accountOf(tx, input.account))?.id ?? null) : input.accountId;
    const { timeZone } = await siteDay(tx, order.site_id);
    const note = input.notePacker.trim() || null;
    await changeOrder(tx, order.id, {
      customer_id: accountId,
      customer: input.customer.trim(),
      email: input.email.trim(),
      phone: input.phone.trim(),
      address_line: input.addressLine.trim(),
      city: input.city.trim(),
      postcode: input.postcode.trim(),
      country: input.country,
      site_id: input.siteId,
      promised_at: promised,
      speed: input.speed,
      priority: input.priority,
      whole_only: input.wholeOnly,
      note_packer: note,
      note_picker: input.notePicker.trim() || null,
      // A note that says something else is read again.
      note_seen_by: note === order.note_packer ? order.note_seen_by : null,
      version: NEXT,
    });
    const change = (what: string, was: string | number | null, becomes: string | number | null) => ({ line: null, what, was, becomes });
    return [
      change('customer', order.customer, input.customer.trim()),
      change('mail', order.email, input.email.trim()),
      change('telephone', order.phone, input.phone.trim()),
      change('street', order.address_line, input.addressLine.trim()),
      change('town', order.city, input.city.trim()),
      change('postcode', order.postcode, input.postcode.trim()),
      change('country', order.country, input.country),
      change('site', order.site_id, input.siteId),
      change('promised', timeText(order.promised_at, timeZone), timeText(promised, timeZone)),
      change('speed', order.speed, input.speed),
      change('priority', order.priority, input.priority),
      change('whole only', order.whole_only ? 'yes' : 'no', input.wholeOnly ? 'yes' : 'no'),
      change('note to the packer', order.note_packer, note),
      change('note to the picker', order.note_picker, input.notePicker.trim()),
    ];
  }

  /** Changes the lines: what is wanted no longer is taken back, what is new is added. */
  private async lines(
    tx: Tx,
    order: Row<'sales_order'>,
    siteId: number,
    ordered: readonly ReadLine[],
  ): Promise<{ taken: HeldGoods[]; itemIds: number[]; lineChanges: DocumentChange[] }> {
    const there = await findAll(tx, 'sales_order_line', { order_id: order.id }, 'line');
    const wanted = withParts(there, ordered);
    const held = await this.taking.held(tx, order.id);
    const taken: HeldGoods[] = [];
    const lineChanges: DocumentChange[] = [];
    for (const line of there) {
      const next = wanted.find((w) => w.line === line.line);
      const moved = siteId !== order.site_id;
      const units = next?.units ?? 0;
      const own = held.filter((h) => h.lineId === line.id);
      const closed = own.reduce((sum, h) => sum + (h.at === 'closed parcel' ? h.units : 0), 0);
      if (units < line.shipped_units + closed) throw this.tooFew(wanted, line, closed);
      const holds = own.reduce((sum, h) => sum + h.units, 0) + line.shipped_units;
      // At another site nothing is promised to it yet.
      const excess = moved ? holds - line.shipped_units : holds - units;
      if (excess > 0) taken.push(...(await this.taking.take(tx, own, excess)));
      lineChanges.push(...changesOf(line, next));
      await changeLine(
        tx,
        line.id,
        next ? { quantity: next.quantity, factor: next.factor, units: next.units, price: next.price } : { quantity: 0, units: 0 },
      );
    }
    const added = wanted.filter((l) => l.line === null);
    const written = await this.writer.lines(
      tx,
      order.id,
      there.at(-1)?.line ?? 0,
      added.map(({ sku, itemId, quantity, factor, price }) => ({ channelSku: sku, itemId, quantity, factor, price })),
    );
    for (const line of added)
      lineChanges.push({ line: null, what: 'goods', was: null, becomes: `${line.quantity * line.factor} ${line.sku}` });
    const itemIds = [...new Set([...there.map((l) => l.item_id), ...written.map((l) => l.itemId)])].filter((id) => id !== null);
    return { taken, itemIds, lineChanges };
  }

  private tooFew(wanted: readonly ReadLine[], line: Row<'sales_order_line'>, closed: number): Error {
    const at = wanted.findIndex((l) => l.line === line.line);
    const says = [
      line.shipped_units > 0 ? `${countOf(line.shipped_units, { name: 'piece', plural: 'pieces' })} have gone` : '',
      closed > 0 ? `${countOf(closed, { name: 'piece', plural: 'pieces' })} are in a closed parcel` : '',
    ]
      .filter(Boolean)
      .join(' and ');
    return badForm({ [at < 0 ? 'lines' : `lines.${at}.quantity`]: `Line ${line.line}: ${says}. Cancel the order, or leave them on it` });
  }
}

/** What is wanted of each line, kits by their parts: these follow the kit that they belong to. */
function withParts(there: readonly Row<'sales_order_line'>[], ordered: readonly ReadLine[]): ReadLine[] {
  const isPart = (line: number | null) => there.some((l) => l.line === line && l.kit_line !== null);
  const isKit = (line: number | null) => line !== null && there.some((l) => l.kit_line === line);
  const heads = ordered.filter((l) => !isPart(l.line)).map((l) => (isKit(l.line) ? { ...l, units: 0 } : l));
  const parts = there.flatMap((part): ReadLine[] => {
    const kit = there.find((l) => l.line === part.kit_line);
    const next = heads.find((l) => l.line === part.kit_line);
    if (!kit || !next || kit.quantity === 0) return [];
    const quantity = (part.quantity / kit.quantity) * next.quantity;
    return [{ line: part.line, sku: part.channel_sku, itemId: part.item_id, quantity, factor: 1, units: quantity, price: part.price }];
  });
  return [...heads, ...parts];
}

function mustBePromisable(at: Date, field: string): void {
  const now = Date.now();
  if (Number.isNaN(at.getTime()) || at.getTime() <= now || at.getTime() > now + FARTHEST_MS)
    throw badForm({ [field]: 'Choose a time from now on, within a year' });
}

function changesOf(line: Row<'sales_order_line'>, next: ReadLine | undefined): DocumentChange[] {
  if (!next) return line.units === 0 ? [] : [{ line: line.line, what: 'goods', was: `${line.units} ${line.channel_sku}`, becomes: null }];
  return [
    { line: line.line, what: 'units', was: line.units, becomes: next.units },
    ...(Number(line.price) === Number(next.price) && line.factor === next.factor
      ? []
      : [{ line: line.line, what: 'price', was: priceWords(line), becomes: priceWords(next) }]),
  ];
}

const priceWords = ({ price, factor }: { price: string; factor: number }) => `${Number(price)}${factor > 1 ? ` for ${factor}` : ''}`;
const changeWords = ({ line, what, was, becomes }: DocumentChange) =>
  `${line === null ? '' : `line ${line} `}${what}: ${was ?? 'nothing'} → ${becomes ?? 'nothing'}`;
