import { Injectable } from '@nestjs/common';
import type { PlaceId } from '@vectrum/core/ids';
import type { Account } from '@vectrum/core/costing';
import { micro, type Micro, times } from '@vectrum/core/money';
import type { OutsideKind } from '@vectrum/core/places';
import {
  changesOf,
  conditionAfter,
  faultOf,
  isOurs,
  opposite,
  type BalanceChange,
  type Condition,
  type Movement,
} from '@vectrum/core/ledger';
import { type Act, marks, more, num, one, Problem, rows, type Tx, update } from '../platform/index.js';
import { addPlace } from '../sites/index.js';
import { type Beside, LateMoves } from './late-moves.js';
import { changeFigures, type FigureChange, type Posted, writeRows } from './ledger-rows.js';
import { KnownPlaces } from './known-places.js';
import { enterValue } from './value/entries.js';
import { type Crossing, ValueService, type Worth } from './value/value.service.js';

/** What a set of movements was for; kept with each of them. */
export interface Posting {
  task:
    | 'receive'
    | 'store'
    | 'move'
    | 'transfer'
    | 'build'
    | 'pick'
    | 'sort'
    | 'pack'
    | 'box'
    | 'ship'
    | 'open'
    | 'undo'
    | 'send-back'
    | 'inspect'
    | 'take-over'
    | 'count'
    | 'come-back'
    | 'give-back';
  document: string | null;
  how?: string | null;
  reason?: string | null;
  /** What a base unit cost, in the home currency, movement by movement; null where it is not known. */
  unitCosts?: readonly (string | null)[];
  /** What goods that come in are worth and why, movement by movement; null where the house goes by what it knows. */
  worths?: readonly (Worth | null)[];
}

/** Site figures that a posting changed; whoever reserves stock looks at these next. */
export interface SiteChange {
  siteId: number;
  itemId: number;
}

/**
 * The only writer of movements and balances. Balances are changed in `balanceKey` order, then site figures in order of
 * site and item, so that two postings never wait for each other in a ring.
 */
@Injectable()
export class LedgerService {
  private readonly places = new KnownPlaces();

  constructor(
    private readonly value: ValueService,
    private readonly late: LateMoves,
  ) {}

  /**
   * Posts movements and their effect on balances. Goods of a recalled lot that come into the house come in held. Throws a `stock`
   * problem where a place would go below nought.
   */
  async post(
    tx: Tx,
    act: Act,
    given: readonly Movement[],
    posting: Posting,
    reverses: readonly number[] = [],
  ): Promise<{ ids: number[]; changes: SiteChange[] }> {
    await this.places.learn(tx, placesOf(given));
    const movements = reverses.length > 0 ? given : await this.heldWhereRecalled(tx, given);
    for (const movement of movements) {
      const fault = faultOf(movement);
      if (fault) throw new Problem(400, 'stock', 'Goods move in whole units from one place to another');
    }
    const beside = await this.late.beside(tx, act, movements);
    await this.places.learn(tx, placesOf(beside.map((b) => b.movement)));
    // What is booked beside is of now, not of when the late ones were made.
    const { madeAt: _, ...now } = act;
    const posted: Posted[] = [
      { act, movements, posting, reverses },
      ...beside.map((b) => ({ act: now, movements: [b.movement], posting: besidePosting(b), reverses: [] })),
    ];
    const changes = changesOf(posted.flatMap((p) => p.movements));
    const { ids, sites } = await writeRows(tx, posted, changes, this.places);
    await this.serialsOnce(tx, movements);
    const changed = await this.changeSites(tx, changes, sites);
    await this.value.follow(
      tx,
      posted.flatMap((p, i) => crossingsOf(p.movements, p.posting, p.reverses, ids[i] ?? [], (id) => this.places.outside(id))),
    );
    return { ids: ids[0] ?? [], changes: changed };
  }

  /** What is good, and of a lot that is recalled, is held from the moment at which it comes into the house. */
  private async heldWhereRecalled(tx: Tx, movements: readonly Movement[]): Promise<readonly Movement[]> {
    const comesIn = (m: Movement) => this.comesIn(m) && (m.toCondition ?? m.condition) === 'good';
    const lots = [...new Set(movements.filter(comesIn).map((m) => m.lotId))];
    if (lots.length === 0) return movements;
    const recalled = await rows<{ id: number }>(
      tx,
      `SELECT DISTINCT lot_id AS id FROM lot_recall WHERE lot_id IN (${marks(lots)}) AND freed_at IS NULL`,
      lots,
    );
    const ids = new Set(recalled.map((r) => r.id));
    return movements.map((m) => (comesIn(m) && ids.has(m.lotId) ? { ...m, toCondition: 'held' as const } : m));
  }

  /** Goods outside the house are lost there: what an account has for them is scrap. */
  writeOff(tx: Tx, of: { itemId: number; movementId: number; document: string | null }, from: Account, value: Micro): Promise<void> {
    return enterValue(tx, { item_id: of.itemId, movement_id: of.movementId, layer_id: null, document: of.document }, 'scrap', from, value);
  }

  /** Posts the opposite of earlier movements, each naming the one it reverses. A movement is reversed once. */
  async reverse(tx: Tx, act: Act, movementIds: readonly number[], document: string | null): Promise<SiteChange[]> {
    const found = await rows<{
      id: string;
      item_id: number;
      lot_id: number;
      stock_condition: Condition;
      to_condition: Condition | null;
      from_place_id: number;
      to_place_id: number;
      units: number;
    }>(
      tx,
      `SELECT id, item_id, lot_id, stock_condition, to_condition, from_place_id, to_place_id, units FROM movement WHERE id IN (${marks(movementIds)}) ORDER BY id`,
      [...movementIds],
    );
    const done = await one(tx, `SELECT id FROM movement WHERE reverses_id IN (${marks(movementIds)}) LIMIT 1`, [...movementIds]);
    if (done) throw new Problem(409, 'undo', 'This was undone already');
    const back = found.map((m) =>
      opposite({
        itemId: m.item_id,
        lotId: m.lot_id,
        condition: m.stock_condition,
        ...(m.to_condition ? { toCondition: m.to_condition } : {}),
        fromPlaceId: m.from_place_id,
        toPlaceId: m.to_place_id,
        units: m.units,
      }),
    );
    const { changes } = await this.post(
      tx,
      act,
      back,
      { task: 'undo', document },
      found.map((m) => Number(m.id)),
    );
    return changes;
  }

  /**
   * The figures of two sites after containers have changed sides with all that is in them. The rows of `places` are locked
   * and name their new site already. Returns the figures that changed.
   */
  async figuresFollow(tx: Tx, places: readonly PlaceId[], from: number, to: number): Promise<SiteChange[]> {
    const held = await rows<{ itemId: number; units: string; apart: string }>(
      tx,
      `SELECT item_id AS itemId, SUM(units) AS units, SUM(IF(stock_condition = 'good', 0, units)) AS apart FROM balance WHERE place_id IN (${marks(places)}) AND units > 0 GROUP BY item_id ORDER BY item_id`,
      [...places],
    );
    const sites = [
      { siteId: from, sign: -1 },
      { siteId: to, sign: 1 },
    ].sort((a, b) => a.siteId - b.siteId);
    await changeFigures(
      tx,
      sites.flatMap(({ siteId, sign }) =>
        held.map((h) => ({ siteId, itemId: h.itemId, onHand: sign * num(h.units), held: sign * num(h.apart) })),
      ),
    );
    return sites.flatMap(({ siteId }) => held.map(({ itemId }) => ({ siteId, itemId })));
  }

  /** The place outside the house that takes the other side of a movement. */
  async outside(tx: Tx, kind: OutsideKind): Promise<number> {
    const place = await one<{ id: number }>(tx, 'SELECT id FROM place WHERE kind = ? AND site_id IS NULL ORDER BY id LIMIT 1', [kind]);
    if (place) return place.id;
    return addPlace(tx, { code: kind.toUpperCase(), kind });
  }

  /** The reserved figure of an item at a site follows the rows of what is promised; only reservations may call this. */
  async reserved(tx: Tx, siteId: number, itemId: number, units: number): Promise<void> {
    await update(tx, 'site_stock', { site_id: siteId, item_id: itemId }, { reserved: more(units) });
  }

  /** A serial number is one piece: of what came into the house, none may now stand there twice. */
  private async serialsOnce(tx: Tx, movements: readonly Movement[]): Promise<void> {
    const came = movements.filter((m) => this.comesIn(m));
    const lots = [...new Set(came.map((m) => m.lotId))];
    if (lots.length === 0) return;
    const twice = await one<{ code: string; name: string }>(
      tx,
      `SELECT l.code, i.name FROM lot l JOIN item i ON i.id = l.item_id AND i.tracking = 'serial' JOIN balance b ON b.item_id = l.item_id AND b.lot_id = l.id AND b.bounded = 1
       WHERE l.id IN (${marks(lots)}) GROUP BY l.id HAVING SUM(b.units) > 1 LIMIT 1`,
      lots,
    );
    if (twice)
      throw new Problem(
        409,
        'stock',
        `Serial number ${twice.code} of ${twice.name} is in the house already. Check the number on the piece`,
      );
  }

  /** Whether goods of a lot come into the house. */
  private comesIn(m: Movement): boolean {
    return m.lotId > 0 && this.places.isOutside(m.fromPlaceId) && !this.places.isOutside(m.toPlaceId);
  }

  /** `sites`: where each of the changes was. */
  private async changeSites(tx: Tx, changes: readonly BalanceChange[], sites: readonly (number | null)[]): Promise<SiteChange[]> {
    const sums = new Map<string, FigureChange>();
    for (const [i, c] of changes.entries()) {
      const siteId = sites[i];
      if (!siteId) continue;
      const key = `${String(siteId).padStart(8, '0')}/${String(c.itemId).padStart(8, '0')}`;
      const sum = sums.get(key) ?? { siteId, itemId: c.itemId, onHand: 0, held: 0 };
      sum.onHand += c.change;
      if (c.condition !== 'good') sum.held += c.change;
      sums.set(key, sum);
    }
    const changed = [...sums].filter(([, s]) => s.onHand !== 0 || s.held !== 0).sort(([a], [b]) => (a < b ? -1 : 1));
    await changeFigures(
      tx,
      changed.map(([, s]) => s),
    );
    return changed.map(([, { siteId, itemId }]) => ({ siteId, itemId }));
  }
}

const placesOf = (movements: readonly Movement[]) => movements.flatMap((m) => [m.fromPlaceId, m.toPlaceId]);
const besidePosting = ({ document, reason }: Beside): Posting => ({ task: 'count', document, reason });

/** The movements by which goods become the house's or cease to be: over its threshold, or taken over from those that stood apart. */
function crossingsOf(
  movements: readonly Movement[],
  posting: Posting,
  reverses: readonly number[],
  ids: readonly number[],
  outside: (placeId: number) => OutsideKind | null,
): Crossing[] {
  const ours = (placeId: number, condition: Condition) => outside(placeId) === null && isOurs(condition);
  return movements.flatMap((m, i): Crossing[] => {
    const [from, to] = [ours(m.fromPlaceId, m.condition), ours(m.toPlaceId, conditionAfter(m))];
    if (from === to) return [];
    const other = outside(from ? m.toPlaceId : m.fromPlaceId);
    const cost = posting.unitCosts?.[i];
    return [
      {
        movementId: ids[i] ?? 0,
        itemId: m.itemId,
        units: m.units,
        direction: to ? 'in' : 'out',
        // What stood apart in the house was still its supplier's.
        outside: posting.task === 'open' ? 'nowhere' : (other ?? 'supplier'),
        document: posting.document,
        reversesId: reverses[i] ?? null,
        worth: posting.worths?.[i] ?? (cost ? { value: times(micro(cost), m.units), parts: [] } : null),
      },
    ];
  });
}
