import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import {
  type DocumentChange,
  type Act,
  badForm,
  badState,
  type Change,
  CommandLog,
  find,
  findAll,
  mustBeAt,
  mustMatch,
  notFound,
  num,
  Outbox,
  type Row,
  theRow,
  type Tx,
  update,
} from '../platform/index.js';
import type { UblOrderResponse, UblResponseLine } from '../ubl/index.js';
import { DroppedOrders } from './dropped-orders.js';
import { keepChanges, samePrice } from './order-changes.js';
import { stateOf } from './order-lines.js';
import { type OrderAnswer } from './states.js';
import type { SettleAnswerDto, SpokenAnswerDto } from './purchasing.dto.js';

/** What a line is told, with what differs from the order; null where nothing does. */
interface Told {
  answer: 'accepted' | 'changed' | 'refused';
  answer_packs: number | null;
  answer_price: string | null;
  answer_on: string | null;
  answer_note: string;
}

/** Keeps suppliers' answers to orders beside what was ordered, until the buyer takes them or asks again. */
@Injectable()
export class AnswersService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly outbox: Outbox,
    private readonly dropped: DroppedOrders,
  ) {}

  /** Writes an answer down; `act` is null where the supplier's own system sent it. What it leaves as ordered is confirmed; what it changes waits for the buyer. */
  async take(tx: Tx, act: Act | null, response: UblOrderResponse): Promise<{ supplierId: number; code: string; says: string }> {
    const order = await this.locked(tx, act, response.order);
    if (order.state !== 'placed' && order.state !== 'part-received')
      throw badState(`${order.code} is ${order.state}. An answer to it comes too late`);
    const lines = await findAll(tx, 'purchase_order_line', { order_id: order.id }, 'line');
    const stray = response.lines.find((r) => !lines.some((l) => l.line === r.line));
    if (stray) throw badForm({ document: `${order.code} has no line ${stray.line}. Ask the supplier which line is meant` });
    const told = lines.map((line) => ({ line, told: toldOf(order, line, response) }));
    const answer = answerOf(
      response,
      told.map((t) => t.told),
    );
    if (answer !== 'acknowledged') for (const { line, told: t } of told) await update(tx, 'purchase_order_line', { id: line.id }, t);
    await update(tx, 'purchase_order', { id: order.id }, { answer, answer_note: response.note.slice(0, 300), version: order.version + 1 });
    const says = ANSWERED[answer];
    await this.activity.record(tx, act, {
      kind: 'purchase-order',
      glyph: answer === 'confirmed' ? 'full' : answer === 'acknowledged' ? 'go' : 'held',
      title: `${order.code} ${says}`,
      detail: response.note || response.seller,
      document: order.code,
      siteId: order.site_id,
    });
    return { supplierId: order.supplier_id, code: order.code, says: `${order.code} ${says}` };
  }

  /** The same for what a supplier said on the telephone: kept line by line, and nobody is written to. */
  spoken(act: Act, code: string, version: number, said: SpokenAnswerDto): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.spoken', { code, version, said }, async (tx) => {
      const order = await this.locked(tx, act, code);
      mustMatch(order.version, version);
      if (said.says === 'changed' && !said.promisedOn && said.lines.length === 0)
        throw badForm({ lines: 'Say what differs: a day, or how many, at which price, of which line' });
      await this.take(tx, act, {
        id: '',
        issuedOn: '',
        seller: '',
        order: code,
        says: said.says,
        note: said.note.trim() || 'told by telephone',
        promisedOn: said.promisedOn ?? null,
        lines: said.lines.map(({ line, says, packs = null, price = null, promisedOn = null }) => ({
          line,
          says,
          packs,
          price,
          promisedOn,
          note: '',
        })),
      });
      return { code };
    });
  }

  /** Takes what the supplier offers into the order, or asks again by mail. */
  settle(act: Act, code: string, version: number, input: SettleAnswerDto): Promise<{ code: string }> {
    return this.commands.run(act, 'purchase-order.settle', { code, version, input }, async (tx) => {
      const order = await this.locked(tx, act, code);
      mustMatch(order.version, version);
      if (order.answer !== 'to-settle' && order.answer !== 'refused' && order.answer !== 'queried')
        throw badState(`Nothing about ${code} waits to be settled`);
      if (input.says === 'query') await this.query(tx, order, input.note.trim());
      else await this.accept(tx, act, order);
      await this.activity.record(tx, act, {
        kind: 'purchase-order',
        glyph: input.says === 'query' ? 'held' : 'full',
        title: input.says === 'query' ? `${code}: asked again` : `${code}: the answer was taken`,
        detail: input.note.trim(),
        document: code,
        siteId: order.site_id,
      });
      return { code };
    });
  }

  private async query(tx: Tx, order: Row<'purchase_order'>, note: string): Promise<void> {
    if (note === '') throw badForm({ note: 'Say what you ask for instead' });
    const supplier = await theRow(tx, 'supplier', { id: order.supplier_id });
    if (!supplier.email) throw badForm({ note: `${supplier.name} has no mail address. Ring ${supplier.phone || 'them'}` });
    await this.outbox.send(
      tx,
      `mail:${supplier.email}`,
      'mail.order-query',
      { code: order.code, to: supplier.email, note },
      { siteId: order.site_id, document: order.code },
    );
    await update(tx, 'purchase_order', { id: order.id }, { answer: 'queried', version: order.version + 1 });
  }

  private async accept(tx: Tx, act: Act, order: Row<'purchase_order'>): Promise<void> {
    const lines = await findAll(tx, 'purchase_order_line', { order_id: order.id }, 'line');
    const changes: DocumentChange[] = [];
    for (const line of lines) {
      const { next, changed } = accepted(line);
      changes.push(...changed);
      await update(
        tx,
        'purchase_order_line',
        { id: line.id },
        { ...next, answer: 'accepted', answer_packs: null, answer_price: null, answer_on: null },
      );
    }
    await keepChanges(tx, act, order.id, changes, 'the supplier’s answer');
    const state = await stateOf(tx, order.id);
    const all = lines.every((l) => l.answer === 'refused') && state === 'received' && lines.every((l) => l.received_units === 0);
    await update(
      tx,
      'purchase_order',
      { id: order.id },
      { answer: 'confirmed', state: all ? 'cancelled' : state, version: order.version + 1 },
    );
    if (all) await this.dropped.tell(tx, order.id);
  }

  private async locked(tx: Tx, act: Act | null, code: string): Promise<Row<'purchase_order'>> {
    const order = await find(tx, 'purchase_order', { code }, 'lock');
    if (!order || order.state === 'draft') throw notFound(`Purchase order ${code}`);
    if (act) mustBeAt(act.person, order.site_id);
    return order;
  }
}

const ANSWERED: Readonly<Record<Exclude<OrderAnswer, '' | 'queried'>, string>> = {
  acknowledged: 'came to the supplier',
  confirmed: 'is confirmed as ordered',
  'to-settle': 'is answered with changes',
  refused: 'is refused',
};

function answerOf(response: UblOrderResponse, told: readonly Told[]): Exclude<OrderAnswer, '' | 'queried'> {
  if (response.says === 'acknowledged') return 'acknowledged';
  if (told.every((t) => t.answer === 'refused')) return 'refused';
  return told.every((t) => t.answer === 'accepted') ? 'confirmed' : 'to-settle';
}

/** A line as the document leaves it: what it does not mention, and what it repeats, is accepted. */
function toldOf(order: Row<'purchase_order'>, line: Row<'purchase_order_line'>, response: UblOrderResponse): Told {
  const named = response.lines.find((l) => l.line === line.line);
  if (response.says === 'refused' || named?.says === 'refused')
    return { answer: 'refused', answer_packs: null, answer_price: null, answer_on: null, answer_note: (named?.note ?? '').slice(0, 200) };
  const offer: Partial<UblResponseLine> = named ?? {};
  const on = offer.promisedOn ?? response.promisedOn;
  const told = {
    answer_packs: offer.packs === null || offer.packs === undefined || offer.packs === line.packs ? null : offer.packs,
    answer_price: offer.price === null || offer.price === undefined || samePrice(offer.price, line.price) ? null : offer.price,
    answer_on: on === null || on === (line.expected_on ?? order.expected_on) ? null : on,
  };
  const same = told.answer_packs === null && told.answer_price === null && told.answer_on === null;
  return { answer: same ? 'accepted' : 'changed', ...told, answer_note: (offer.note ?? '').slice(0, 200) };
}

/** A line once the answer is taken: never less than has come, what is refused is closed. */
function accepted(line: Row<'purchase_order_line'>): { next: Change<'purchase_order_line'>; changed: DocumentChange[] } {
  if (line.answer === 'refused')
    return {
      next: { closed_units: line.closed_units + num(line.open_units) },
      changed: [{ line: line.line, what: 'refused', was: null, becomes: `${line.open_units} units closed` }],
    };
  const least = Math.ceil((line.received_units + line.closed_units) / line.factor);
  const packs = line.answer_packs === null ? line.packs : Math.max(1, least, line.answer_packs);
  const price = line.answer_price ?? line.price;
  const expectedOn = line.answer_on ?? line.expected_on;
  return {
    next: { packs, price, expected_on: expectedOn },
    changed: [
      { line: line.line, what: 'quantity', was: line.packs, becomes: packs },
      ...(samePrice(line.price, price) ? [] : [{ line: line.line, what: 'price', was: line.price, becomes: price }]),
      { line: line.line, what: 'day', was: line.expected_on, becomes: expectedOn },
    ],
  };
}
