import { type Act, badState, mustBeAt, notFound, prepared, rows, type Tx } from '../platform/index.js';

export interface RoundRow {
  id: number;
  code: string;
  site_id: number;
  state: string;
  picker_id: number | null;
  /** Whether its orders share totes, and are sorted at a wall afterwards. */
  pooled: number;
  /** The cart that it is walked with; null while there is none. */
  cart_id: number | null;
}

/** One stop of a round with all that a command at it needs. */
export interface StopRow {
  id: number;
  roundId: number;
  lineId: number;
  orderId: number;
  order: string;
  itemId: number;
  lotId: number;
  placeId: number;
  placeCode: string;
  units: number;
  picked: number;
  short: number;
  /** Who goes there: whoever it is shared out to, otherwise whoever walks the round. */
  ownerId: number | null;
  /** Whom it is shared out to. */
  personId: number | null;
  rotation: 'fifo' | 'fefo';
}

/** A round that is worked on. Shared: others may pick at its other stops meanwhile, but not set it down. */
export async function roundOf(tx: Tx, act: Act, code: string, lock: 'share' | 'alone'): Promise<RoundRow> {
  const [round] = await prepared<RoundRow[]>(
    tx,
    `SELECT id, code, site_id, state, picker_id, pooled, cart_id FROM \`round\` WHERE code = ? ${lock === 'alone' ? 'FOR UPDATE' : 'LOCK IN SHARE MODE'}`,
    [code.toUpperCase()],
  );
  if (!round) throw notFound(`Round ${code}`);
  mustBeAt(act.person, round.site_id);
  return round;
}

export function mustBeOpen(round: RoundRow): void {
  if (round.state !== 'waiting' && round.state !== 'picking') throw badState(`${round.code} is set down already`);
}

/**
 * The stops that one pick serves, locked: the one named, and of a pooled round all that want the same lot of the same bin, those of
 * the order that was promised soonest first. None where the stop is gone.
 */
export async function stopsLike(tx: Tx, round: RoundRow, stopId: number): Promise<StopRow[]> {
  const stop = await stopOf(tx, round.id, stopId);
  if (!stop || round.pooled !== 1) return stop ? [stop] : [];
  const twins = await rows<{ id: number }>(
    tx,
    `SELECT s.id FROM round_stop s JOIN sales_order_line l ON l.id = s.order_line_id JOIN sales_order o ON o.id = l.order_id
     WHERE s.round_id = ? AND s.place_id = ? AND s.item_id = ? AND s.lot_id = ? ORDER BY o.promised_at, o.id, l.line, s.id`,
    [round.id, stop.placeId, stop.itemId, stop.lotId],
  );
  const held: StopRow[] = [];
  for (const { id } of twins) {
    const twin = await stopOf(tx, round.id, id);
    if (twin) held.push(twin);
  }
  return held;
}

/** What stops still want, together. */
export const leftAt = (stops: readonly Pick<StopRow, 'units' | 'picked' | 'short'>[]): number =>
  stops.reduce((n, s) => n + s.units - s.picked - s.short, 0);

/** Units shared out among stops, the first of them first. */
export function sharedOut(stops: readonly StopRow[], units: number): { stop: StopRow; units: number }[] {
  let rest = units;
  return stops.flatMap((stop) => {
    const part = Math.min(rest, leftAt([stop]));
    rest -= part;
    return part > 0 ? [{ stop, units: part }] : [];
  });
}

/** A stop, locked: it alone, of all that the round holds. */
export async function stopOf(tx: Tx, roundId: number, stopId: number): Promise<StopRow | undefined> {
  await prepared(tx, 'SELECT id FROM round_stop WHERE id = ? FOR UPDATE', [stopId]);
  const [stop] = await prepared<StopRow[]>(
    tx,
    `SELECT s.id, s.round_id AS roundId, s.order_line_id AS lineId, l.order_id AS orderId, o.code AS \`order\`, s.item_id AS itemId, s.lot_id AS lotId, s.place_id AS placeId, p.code AS placeCode,
       s.units, s.picked_units AS picked, s.short_units AS short, COALESCE(s.person_id, r.picker_id) AS ownerId, s.person_id AS personId, i.rotation
     FROM round_stop s JOIN \`round\` r ON r.id = s.round_id JOIN sales_order_line l ON l.id = s.order_line_id JOIN sales_order o ON o.id = l.order_id JOIN place p ON p.id = s.place_id JOIN item i ON i.id = s.item_id
     WHERE s.id = ? AND s.round_id = ?`,
    [stopId, roundId],
  );
  return stop;
}

export const ordersOfRound = async (tx: Tx, roundId: number): Promise<number[]> =>
  (await rows<{ id: number }>(tx, 'SELECT order_id AS id FROM round_order WHERE round_id = ? ORDER BY order_id', [roundId])).map(
    (o) => o.id,
  );
