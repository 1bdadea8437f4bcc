import { type Fate, FATES, isReturnReason, worthBack } from '@vectrum/core/customer-returns';
import { micro } from '@vectrum/core/money';
import { goodsWords } from '@vectrum/core/quantity';
import { checkComeBack, type ComeBackCommand, type ItemFacts, type PlaceFacts } from '@vectrum/core/scan';
import type { Condition, Movement } from '@vectrum/core/ledger';
import { Injectable } from '@nestjs/common';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { type Act, badState, find, insert, NEXT, NOW, num, one, refused, type Row, siteDay, type Tx, update } from '../platform/index.js';
import { firstPlace } from '../sites/index.js';
import { LedgerService, lotFor, type Worth } from '../stock/index.js';
import { CustomerReturns } from './customer-returns.service.js';
import { IS_BACK, outLines } from './out.queries.js';

/** So many of what nobody knows the order of may come in one go. */
const MOST_UNKNOWN = 100_000;

/** In which condition goods stand in the house, by what becomes of them. */
const CONDITION: Readonly<Record<Fate, Condition>> = {
  shelf: 'good',
  quarantine: 'held',
  supplier: 'damaged',
  scrap: 'damaged',
  // What is repaired stays the customer's: it stands apart, and is worth nothing to us.
  repair: 'apart',
};

/** Takes back what customers send: into the house at the cost at which it left, and to where it belongs. */
@Injectable()
export class ComingBack {
  constructor(
    private readonly returns: CustomerReturns,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('come-back', 'receive', (tx, act, payload) => this.takeBack(tx, act, Number(payload['pieceId'])));
  }

  /** Problem 409 with the band of the phone where the goods cannot come back so. */
  async take(tx: Tx, act: Act, input: ComeBackCommand): Promise<FloorAnswerDto> {
    const found = await this.returns.locked(tx, act, input.code);
    if (found.state === 'settled' || found.state === 'called-off')
      throw refused({ band: 'not-this', title: found.code, detail: 'It is settled. Nothing comes to it any more' });
    const item = await this.codebook.item(tx, found.site_id, input.itemId);
    if (!item) throw badState('This item is not known any more');
    const quarantine = (await firstPlace(tx, found.site_id, 'quarantine')) ?? null;
    await this.mustFit(tx, found, item, input, quarantine);
    const posted = await this.post(tx, act, found, item, input, quarantine);
    const lineId = await this.line(tx, found.id, input);
    const pieceId = await insert(tx, 'came_back', {
      line_id: lineId,
      lot_id: posted.lotId,
      number: input.number,
      units: input.units,
      came_as: input.cameAs,
      fate: input.fate,
      note: input.note.trim(),
      place_id: posted.place.id,
      movement_id: posted.movementId,
      scrapped_id: posted.scrappedId,
      person_id: act.person.id,
    });
    await update(tx, 'customer_return', { id: found.id }, { state: 'here', version: NEXT, ...(found.came_at ? {} : { came_at: NOW }) });
    const activityId = await this.activity.record(tx, act, {
      kind: 'come-back',
      glyph: input.fate === 'shelf' ? 'full' : 'held',
      title: `${goodsWords(input.units, item)} back from ${found.customer}`,
      detail: `${FATES[input.fate].toLowerCase()}${input.fate === 'scrap' ? '' : `, at ${posted.place.code}`}`,
      document: found.code,
      siteId: found.site_id,
      how: input.how,
      undo: { pieceId },
    });
    return { activityId };
  }

  /** A piece that was to be repaired is kept instead: from now on it is the house's, at the cost at which it left. */
  async keepInstead(
    tx: Tx,
    act: Act,
    found: Row<'customer_return'>,
    piece: Row<'came_back'>,
    fate: Exclude<Fate, 'repair'>,
  ): Promise<void> {
    const line = await find(tx, 'customer_return_line', { id: piece.line_id });
    const item = await this.codebook.item(tx, found.site_id, line?.item_id ?? 0);
    if (!line || !item) throw badState('This item is not known any more');
    await this.allocation.settle(tx, await this.ledger.reverse(tx, act, [num(piece.movement_id)], found.code));
    await update(tx, 'came_back', { id: piece.id }, { undone_at: NOW });
    const lot = piece.lot_id === 0 ? null : ((await find(tx, 'lot', { id: piece.lot_id }))?.code ?? null);
    await this.take(tx, act, {
      kind: 'come-back',
      id: act.key,
      code: found.code,
      orderLineId: line.order_line_id,
      itemId: line.item_id,
      units: piece.units,
      lot,
      number: piece.number,
      cameAs: piece.came_as as ComeBackCommand['cameAs'],
      fate,
      note: piece.note,
      how: 'typed',
    });
  }

  /** The order's row is held, so that no two returns take the same goods back. */
  private async mustFit(
    tx: Tx,
    found: Row<'customer_return'>,
    item: ItemFacts,
    input: ComeBackCommand,
    quarantine: PlaceFacts | null,
  ): Promise<void> {
    if (found.order_id === null) {
      const known = await find(tx, 'customer_return_line', { return_id: found.id, item_id: input.itemId });
      if (!known || input.orderLineId !== null) throw notOfIt(item, found.code);
      const refusal = checkComeBack(item, { orderLineId: null, lots: [], numbers: [] }, input, MOST_UNKNOWN, quarantine);
      if (refusal) throw refused(refusal);
      return;
    }
    await tx.query('SELECT id FROM sales_order WHERE id = ? FOR UPDATE', [found.order_id]);
    const line = (await outLines(tx, found.order_id)).find((l) => l.id === input.orderLineId);
    if (line?.itemId !== input.itemId) throw notOfIt(item, found.code);
    const refusal = checkComeBack(
      item,
      { orderLineId: line.id, lots: line.lots, numbers: line.numbers },
      input,
      line.gone - line.back,
      quarantine,
    );
    if (refusal) throw refused(refusal);
  }

  private async post(
    tx: Tx,
    act: Act,
    found: Row<'customer_return'>,
    item: ItemFacts,
    input: ComeBackCommand,
    quarantine: PlaceFacts | null,
  ): Promise<{ movementId: number; scrappedId: number | null; lotId: number; place: PlaceFacts }> {
    const aside = input.fate === 'quarantine' || input.fate === 'repair' ? quarantine : null;
    const place = aside ?? (await firstPlace(tx, found.site_id, 'dock')) ?? (await firstPlace(tx, found.site_id, 'counter'));
    if (!place) throw badState('This site has no dock. Make one in Shelves, Places');
    const { today } = await siteDay(tx, found.site_id);
    const lotId = await lotFor(tx, item.tracking, { itemId: input.itemId, lot: input.lot }, today);
    const condition = CONDITION[input.fate];
    const from = await this.ledger.outside(tx, 'customer');
    const goods = { itemId: input.itemId, lotId, units: input.units };
    const movements: Movement[] = [
      { ...goods, condition: 'good', ...(condition === 'good' ? {} : { toCondition: condition }), fromPlaceId: from, toPlaceId: place.id },
    ];
    if (input.fate === 'scrap')
      movements.push({ ...goods, condition, fromPlaceId: place.id, toPlaceId: await this.ledger.outside(tx, 'scrap') });
    const worth = found.order_id === null ? null : await this.worth(tx, found.order_id, goods);
    const { ids, changes } = await this.ledger.post(tx, act, movements, {
      task: 'come-back',
      document: found.code,
      how: input.how,
      reason: input.note.trim().slice(0, 120) || null,
      worths: movements.map((_, i) => (i === 0 ? worth : null)),
    });
    await this.allocation.settle(tx, changes);
    return { movementId: ids[0] ?? 0, scrappedId: ids[1] ?? null, lotId, place };
  }

  /** What the units cost when they left with the order; null where the ledger knows of none that left, and goes by what it knows. */
  private async worth(tx: Tx, orderId: number, goods: { itemId: number; lotId: number; units: number }): Promise<Worth | null> {
    const gone = await one<{ code: string; units: string; value: string }>(
      tx,
      `SELECT o.code, SUM(m.units) AS units, SUM(COALESCE(e.amount, 0)) AS value FROM sales_order o JOIN movement m ON m.document = o.code AND m.task = 'ship'
         LEFT JOIN value_entry e ON e.movement_id = m.id AND e.credit = 'stock' AND e.debit = 'cost of goods'
       WHERE o.id = ? AND m.item_id = ? AND m.lot_id = ? AND NOT EXISTS (SELECT 1 FROM movement x WHERE x.reverses_id = m.id) GROUP BY o.code`,
      [orderId, goods.itemId, goods.lotId],
    );
    if (!gone) return null;
    const before = await one<{ units: string | null; value: string | null }>(
      tx,
      `SELECT SUM(c.units) AS units, SUM(COALESCE(e.amount, 0)) AS value FROM came_back c JOIN customer_return_line l ON l.id = c.line_id JOIN customer_return r ON r.id = l.return_id
         LEFT JOIN value_entry e ON e.movement_id = c.movement_id AND e.debit = 'stock' AND e.credit = 'cost of goods'
       WHERE r.order_id = ? AND l.item_id = ? AND c.lot_id = ? AND c.fate <> 'repair' AND ${IS_BACK}`,
      [orderId, goods.itemId, goods.lotId],
    );
    const costed = (of: { units: string | null; value: string | null } | undefined) => ({
      units: num(of?.units),
      value: micro(of?.value ?? '0'),
    });
    const value = worthBack(costed(gone), costed(before), goods.units);
    return { value, parts: [{ kind: 'price', says: `As it left with ${gone.code}`, document: gone.code, amount: value }] };
  }

  /** The line of the return that the goods belong to; one is made where nobody announced them. */
  private async line(tx: Tx, returnId: number, input: ComeBackCommand): Promise<number> {
    const known = await one<{ id: number }>(
      tx,
      'SELECT id FROM customer_return_line WHERE return_id = ? AND item_id = ? AND order_line_id <=> ? ORDER BY line LIMIT 1',
      [returnId, input.itemId, input.orderLineId],
    );
    if (known) return known.id;
    const last = await one<{ line: number | null }>(tx, 'SELECT MAX(line) AS line FROM customer_return_line WHERE return_id = ?', [
      returnId,
    ]);
    // Whoever announced something else may have got the reason right for this as well.
    const said = await one<{ reason: string }>(tx, 'SELECT reason FROM customer_return_line WHERE return_id = ? ORDER BY line LIMIT 1', [
      returnId,
    ]);
    return insert(tx, 'customer_return_line', {
      return_id: returnId,
      line: (last?.line ?? 0) + 1,
      order_line_id: input.orderLineId,
      item_id: input.itemId,
      reason: said && isReturnReason(said.reason) ? said.reason : 'unsaid',
    });
  }

  private async takeBack(tx: Tx, act: Act, pieceId: number): Promise<void> {
    const of = await one<{ code: string }>(
      tx,
      'SELECT r.code FROM came_back c JOIN customer_return_line l ON l.id = c.line_id JOIN customer_return r ON r.id = l.return_id WHERE c.id = ?',
      [pieceId],
    );
    const found = await this.returns.locked(tx, act, of?.code ?? '');
    const piece = await find(tx, 'came_back', { id: pieceId }, 'lock');
    if (!piece || piece.undone_at) throw badState('This was undone already');
    if (found.state === 'settled') throw badState(`${found.code} is settled. What came back stays back`);
    const movements = [piece.movement_id, ...(piece.scrapped_id ? [piece.scrapped_id] : [])].map(num);
    await this.allocation.settle(tx, await this.ledger.reverse(tx, act, movements, found.code));
    await update(tx, 'came_back', { id: pieceId }, { undone_at: NOW });
    const left = await one(
      tx,
      'SELECT c.id FROM came_back c JOIN customer_return_line l ON l.id = c.line_id WHERE l.return_id = ? AND c.undone_at IS NULL LIMIT 1',
      [found.id],
    );
    await update(
      tx,
      'customer_return',
      { id: found.id },
      { version: NEXT, ...(left || found.told_by === 'dock' ? {} : { state: 'announced', came_at: null }) },
    );
  }
}

const notOfIt = (item: ItemFacts, code: string) =>
  refused({
    band: 'not-this',
    title: item.name,
    detail: `It did not leave with the order of ${code}. Take it back with the order that it came from`,
  });
