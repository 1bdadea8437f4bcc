import { Injectable } from '@nestjs/common';
import { isFor } from '@vectrum/core/places';
import {
  type AnnouncedPallet,
  checkReceive,
  checkWhole,
  type Codebook,
  type PlaceFacts,
  type ReceiveCommand,
  type ReceiveLine,
  type ReceivePalletCommand,
  type ReceiveTask,
  type ReceiveWholeCommand,
  wholeOf,
} from '@vectrum/core/scan';
import { goodsWords } from '@vectrum/core/quantity';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { heldForInspection, InspectionDue } from '../inspection/index.js';
import {
  type Act,
  insert,
  marks,
  mustBeAt,
  one,
  type Person,
  Problem,
  refused,
  remove,
  rows,
  siteDay,
  type Tx,
} from '../platform/index.js';
import { countOnLine } from '../purchasing/index.js';
import { LandedService, LedgerService, type Worth, lotFor } from '../stock/index.js';
import { ArrivalsService } from './arrivals.service.js';
import { comingWith, type Delivery, deliveryOf } from './delivery.js';
import { conditionOf, type Taken, writeReceipt } from './receipts.js';
import { type DockTask, ReceiveTaskQueries } from './receive-task.queries.js';

/** Books goods in, line by line or a pallet at a time, straight to the ledger. */
@Injectable()
export class ReceivingService {
  constructor(
    private readonly ledger: LedgerService,
    private readonly codebook: CodebookQueries,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly arrivals: ArrivalsService,
    private readonly tasks: ReceiveTaskQueries,
    private readonly landed: LandedService,
    private readonly inspections: InspectionDue,
    undo: UndoService,
  ) {
    undo.register('receive', 'receive', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Undo));
  }

  /** The task of one order or arrival, for the phone. */
  async task(tx: Tx, person: Person, code: string): Promise<{ task: DockTask; siteId: number }> {
    const delivery = await deliveryOf(tx, code, false);
    return { task: await this.tasks.task(tx, person, delivery), siteId: delivery.siteId };
  }

  /** Books in what was counted. What is beyond the order comes in as a receipt of its own, where the person may take it. */
  async receive(tx: Tx, act: Act, command: ReceiveCommand): Promise<FloorAnswerDto> {
    const delivery = await this.opened(tx, act, command.document);
    const task = await this.tasks.task(tx, act.person, delivery, { items: [command.itemId], pallet: null });
    const book = await this.facts(tx, delivery.siteId, [command.itemId], command.toPlaceId);
    const taken = await this.taken(tx, task, book, command);
    const to = this.placeFor(book, command, delivery.siteId);
    const item = book.items[command.itemId];
    const words = item ? goodsWords(command.units, item) : command.document;
    return this.post(tx, act, delivery, taken, to, {
      title: `${words}${command.as === 'apart' ? `: ${command.reason ?? ''}` : command.condition === 'damaged' ? ', damaged' : ''}`,
      how: command.how,
    });
  }

  /** Books in all that an announced pallet holds, by one scan; all of it or nothing. */
  async receivePallet(tx: Tx, act: Act, command: ReceivePalletCommand): Promise<FloorAnswerDto> {
    const { sscc, toPlaceId, how } = command;
    const delivery = await this.opened(tx, act, command.document);
    const pallet = await this.tasks.pallet(tx, delivery, sscc);
    if (!pallet || !delivery.arrival)
      throw refused({ band: 'unknown', title: sscc, detail: 'No such pallet is announced here. Scan the goods on it' });
    if (pallet.received) throw refused({ band: 'too-many', title: 'Booked in already', detail: `Pallet ${sscc} came in before` });
    const items = pallet.contents.map((c) => c.itemId);
    const task = await this.tasks.task(tx, act.person, delivery, { items, pallet: sscc });
    const book = await this.facts(tx, delivery.siteId, items, toPlaceId);
    const all: Taken[] = [];
    const come = new Map<number, number>();
    for (const goods of pallet.contents) {
      const before = come.get(goods.lineId ?? 0) ?? 0;
      all.push(...(await this.taken(tx, task, book, asAnnounced(command, goods), before)));
      come.set(goods.lineId ?? 0, before + goods.units);
    }
    const to = this.placeFor(book, { as: 'ordered', condition: 'good', toPlaceId }, delivery.siteId);
    await insert(tx, 'received_pallet', { arrival_id: delivery.arrival.id, sscc });
    return this.post(tx, act, delivery, all, to, {
      title: `Pallet ${sscc}, ${all.length === 1 ? '1 line' : `${all.length} lines`} as announced`,
      how,
      pallet: sscc,
    });
  }

  /** Books in what is left of a delivery as it stands on the paper; all of it or nothing. */
  async receiveWhole(tx: Tx, act: Act, command: ReceiveWholeCommand): Promise<FloorAnswerDto> {
    const { toPlaceId, how } = command;
    const delivery = await this.opened(tx, act, command.document);
    const task = await this.tasks.task(tx, act.person, delivery);
    const book = await this.facts(tx, delivery.siteId, [...new Set(task.lines.map((l) => l.itemId))], toPlaceId);
    const whole = wholeOf(task, book.items, { pending: [] });
    const refusal = checkWhole(task, whole);
    if (refusal) throw refused(refusal);
    const shown = new Map(command.lines.map((l) => [l.lineId, l.units]));
    if (
      shown.size !== command.lines.length ||
      shown.size !== whole.lines.length ||
      whole.lines.some(({ line, units }) => shown.get(line.lineId) !== units)
    )
      throw refused({
        band: 'not-this',
        title: 'No longer so',
        detail: `${delivery.code} has changed meanwhile. Look at what is left, then book it in`,
      });
    const all: Taken[] = [];
    for (const { line, units } of whole.lines) all.push(...(await this.taken(tx, task, book, asOnPaper(command, line, units))));
    const to = this.placeFor(book, { as: 'ordered', condition: 'good', toPlaceId }, delivery.siteId);
    return this.post(tx, act, delivery, all, to, {
      title: `${all.length === 1 ? '1 line' : `${all.length} lines`} as on the paper, not counted`,
      how,
    });
  }

  private async opened(tx: Tx, act: Act, code: string): Promise<Delivery> {
    const delivery = await deliveryOf(tx, code.toUpperCase(), true);
    mustBeAt(act.person, delivery.siteId);
    return delivery;
  }

  /** The goods and the place that a command names. The rules look up no code: a phone has done that. */
  private async facts(tx: Tx, siteId: number, itemIds: readonly number[], placeId: number): Promise<Codebook> {
    const [{ today }, items, place] = [
      await siteDay(tx, siteId),
      await this.codebook.items(tx, siteId, itemIds),
      await this.codebook.place(tx, siteId, placeId),
    ];
    return { today, codes: {}, items, places: place ? { [place.code]: place } : {} };
  }

  /** Checks a command by the floor's rule; what is more than ordered becomes a receipt of its own. `more` is on its way in already. */
  private async taken(tx: Tx, task: ReceiveTask, book: Codebook, command: ReceiveCommand, more = 0): Promise<Taken[]> {
    const line = task.lines.find((l) => l.lineId === command.lineId);
    const before = (line?.received ?? 0) + more;
    const refusal = checkReceive(task, book, command, before);
    if (refusal) throw refused(refusal);
    const one: Taken = {
      lineId: command.lineId,
      itemId: command.itemId,
      lotId: await lotFor(tx, book.items[command.itemId]?.tracking ?? 'none', command, book.today),
      units: command.units,
      as: command.as,
      condition: conditionOf(command),
      reason: command.reason,
    };
    const extra = line && command.as !== 'apart' ? Math.min(command.units, Math.max(0, before + command.units - line.ordered)) : 0;
    if (extra === 0) return [{ ...one, as: command.as === 'extra' ? 'ordered' : command.as }];
    const rest: Taken[] = command.units > extra ? [{ ...one, as: 'ordered', units: command.units - extra }] : [];
    return [...rest, { ...one, as: 'extra', units: extra }];
  }

  private async post(
    tx: Tx,
    act: Act,
    delivery: Delivery,
    came: readonly Taken[],
    to: PlaceFacts,
    tape: { title: string; how: string; pallet?: string },
  ): Promise<FloorAnswerDto> {
    const arrival = await this.arrivals.opened(tx, act, delivery);
    const taken = await heldForInspection(this.inspections, tx, { ...comingWith(delivery), arrivalId: arrival.id }, came);
    const from = await this.ledger.outside(tx, 'supplier');
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      taken.map((t) => ({ itemId: t.itemId, lotId: t.lotId, condition: t.condition, fromPlaceId: from, toPlaceId: to.id, units: t.units })),
      { task: 'receive', document: delivery.code, how: tape.how, reason: taken[0]?.reason ?? null, worths: await this.worths(tx, taken) },
    );
    const receiptIds = [];
    for (const [i, one] of taken.entries()) {
      receiptIds.push(await writeReceipt(tx, arrival.id, act.person.id, one, ids[i] ?? 0));
      if (one.lineId !== null) await countOnLine(tx, one.lineId, one.units);
    }
    await this.allocation.settle(tx, changes);
    const activityId = await this.activity.record(tx, act, {
      kind: 'receive',
      glyph: taken.some((t) => t.condition !== 'good') ? 'held' : 'full',
      title: tape.title,
      detail: `at ${to.code}, ${delivery.code}`,
      document: delivery.code,
      siteId: delivery.siteId,
      how: tape.how,
      undo: {
        movements: ids,
        receipts: receiptIds,
        orders: delivery.orders.map((o) => o.id),
        arrivalId: arrival.id,
        pallet: tape.pallet ?? null,
        document: delivery.code,
      } satisfies Undo,
    });
    return { activityId, receiptId: receiptIds[0] ?? 0, arrival: arrival.code };
  }

  /** What comes in against a line has its price and charges; what is set apart is not ours yet, and worth nothing. */
  private worths(tx: Tx, taken: readonly Taken[]): Promise<(Worth | null)[]> {
    return Promise.all(
      taken.map((t) => {
        if (t.as === 'apart') return Promise.resolve({ value: 0n, parts: [] });
        return t.lineId === null ? Promise.resolve(null) : this.landed.of(tx, t.lineId, t.units, t.as === 'ordered');
      }),
    );
  }

  private placeFor(book: Codebook, command: Pick<ReceiveCommand, 'as' | 'condition' | 'toPlaceId'>, siteId: number): PlaceFacts {
    const place = Object.values(book.places).find((p) => p.id === command.toPlaceId);
    if (!place || place.siteId !== siteId)
      throw refused({
        band: 'not-this',
        title: place?.code ?? 'Unknown place',
        detail: 'This place is not at this site. Scan a bin or the dock here',
      });
    const aside = isFor(place.kind, 'apart') && (command.as === 'apart' || command.condition === 'damaged');
    if (!aside && !isFor(place.kind, 'receive'))
      throw refused({ band: 'not-this', title: place.code, detail: 'Goods cannot be booked in here. Scan a bin or the dock' });
    return place;
  }

  private async takeBack(tx: Tx, act: Act, undo: Undo): Promise<void> {
    await one(tx, `SELECT id FROM purchase_order WHERE id IN (${marks(undo.orders)}) ORDER BY id FOR UPDATE`, [...undo.orders]);
    const receipts = await rows<{ lineId: number | null; units: number }>(
      tx,
      `SELECT order_line_id AS lineId, units FROM receipt WHERE id IN (${marks(undo.receipts)}) AND undone_at IS NULL`,
      [...undo.receipts],
    );
    if (receipts.length !== undo.receipts.length) throw new Problem(409, 'undo', 'This was undone already');
    const billed = await one<{ code: string }>(
      tx,
      `SELECT b.code FROM bill_line l JOIN bill b ON b.id = l.bill_id JOIN receipt r ON r.order_line_id = l.order_line_id WHERE r.id IN (${marks(undo.receipts)}) AND b.state = 'posted' LIMIT 1`,
      [...undo.receipts],
    );
    if (billed) throw new Problem(409, 'undo', `These goods are on bill ${billed.code}. Send them back to the supplier instead`);
    const changes = await this.ledger.reverse(tx, act, undo.movements, undo.document);
    for (const { lineId, units } of receipts) if (lineId !== null) await countOnLine(tx, lineId, -units);
    await tx.query(`UPDATE receipt SET undone_at = UTC_TIMESTAMP(3) WHERE id IN (${marks(undo.receipts)})`, [...undo.receipts]);
    if (undo.pallet) await remove(tx, 'received_pallet', { arrival_id: undo.arrivalId, sscc: undo.pallet });
    await this.allocation.settle(tx, changes);
  }
}

/** Goods of a pallet as if they had been counted one by one. */
function asAnnounced(command: ReceivePalletCommand, goods: AnnouncedPallet['contents'][number]): ReceiveCommand {
  const { id, document, toPlaceId, how } = command;
  return { kind: 'receive', id, document, toPlaceId, how, as: 'ordered', condition: 'good', reason: null, ...goods };
}

/** What is left of a line as if it had been counted. */
function asOnPaper({ id, document, toPlaceId, how }: ReceiveWholeCommand, { lineId, itemId }: ReceiveLine, units: number): ReceiveCommand {
  const none = { lot: null, expires: null, reason: null };
  return { kind: 'receive', id, document, toPlaceId, how, as: 'ordered', condition: 'good', lineId, itemId, units, ...none };
}

interface Undo extends Record<string, unknown> {
  movements: number[];
  receipts: number[];
  orders: number[];
  arrivalId: number;
  pallet: string | null;
  document: string;
}
