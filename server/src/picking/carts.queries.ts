import type { PlaceId, SiteId } from '@vectrum/core/ids';
import { num, prepared, type Tx } from '../platform/index.js';
import type { PickCartDto } from './picking.dto.js';

interface CartRow {
  placeId: number;
  toteId: number | null;
  /** The other round that is walked with it; null where there is none. */
  walked: string | null;
  /** Whether goods lie on the cart itself. */
  loaded: number | string;
  /** The other round whose goods the tote holds; null where there is none. */
  held: string | null;
  /** Whether the tote is in use, or holds something that nobody has put away. */
  busy: number | string;
}

/**
 * The carts of a site as a round sees them, each with the empty totes on it: one that is walked on another round, whose totes are still
 * to be packed, or that goods wait on is taken. `cartId`: that cart alone.
 */
export async function cartsAt(
  tx: Pick<Tx, 'query'>,
  round: { id: number; siteId: SiteId },
  cartId: PlaceId | null = null,
): Promise<PickCartDto[]> {
  const found = await prepared<CartRow[]>(
    tx,
    `SELECT c.id AS placeId, t.id AS toteId, (SELECT MIN(w.code) FROM \`round\` w WHERE w.cart_id = c.id AND w.state = 'picking' AND w.id <> ?) AS walked, EXISTS (SELECT 1 FROM balance b WHERE b.place_id = c.id AND b.units > 0) AS loaded,
       IF(u.round_id <> ?, h.code, NULL) AS held, (u.id IS NOT NULL OR EXISTS (SELECT 1 FROM balance b WHERE b.place_id = t.id AND b.units > 0)) AS busy
     FROM place c LEFT JOIN place t ON t.parent_id = c.id AND t.kind = 'tote' AND t.blocked = 0 LEFT JOIN tote_use u ON u.open_tote = t.id LEFT JOIN \`round\` h ON h.id = u.round_id
     WHERE c.site_id = ? AND c.kind = 'cart' AND c.blocked = 0 AND (? IS NULL OR c.id = ?) ORDER BY c.walk_order, c.id, t.walk_order, t.code`,
    [round.id, round.id, round.siteId, cartId, cartId],
  );
  return [...new Set(found.map((f) => f.placeId))].map((placeId) => {
    const on = found.filter((f) => f.placeId === placeId);
    const taken = whyTaken(on);
    const toteIds = on.flatMap((f) => (f.toteId === null || num(f.busy) === 1 ? [] : [f.toteId]));
    return { placeId, toteIds, ...(taken === undefined ? {} : { taken }) };
  });
}

function whyTaken(on: readonly CartRow[]): string | undefined {
  const other = on.map((f) => f.walked ?? f.held).find((code) => code !== null);
  if (other) return `In use on ${other}`;
  return on.some((f) => num(f.loaded) === 1) ? 'Goods wait on it to be put away' : undefined;
}
