import { isOutside, type OutsideKind } from '@vectrum/core/places';
import { marks, prepared, type Tx } from '../platform/index.js';

/** No site has this number, and a balance in the house must have one. */
const NOWHERE = 0;

interface KnownPlace {
  /** What it is outside the house; null in it. */
  outside: OutsideKind | null;
  /** Where it was when it was read; null outside the house. */
  siteId: number | null;
}

/**
 * What a posting has to know of places, so that it need not ask again. A place never goes from inside to outside or back, and none
 * outside becomes another: that is known for good. A container may have come to another site, which `haveMoved` finds out.
 */
export class KnownPlaces {
  private readonly known = new Map<number, KnownPlace>();

  /** Reads those of these places that are not known yet. */
  async learn(tx: Pick<Tx, 'query'>, ids: readonly number[]): Promise<void> {
    const fresh = ids.filter((id) => !this.known.has(id));
    if (fresh.length > 0) await this.read(tx, fresh);
  }

  /** What a place is outside the house; null for one in it. One that is not there is in the house. */
  outside(id: number): OutsideKind | null {
    return this.known.get(id)?.outside ?? null;
  }

  isOutside(id: number): boolean {
    return this.outside(id) !== null;
  }

  /** Where it was when it was last read: null outside the house, nowhere for one that was not there. */
  siteOf(id: number): number | null {
    return this.known.get(id)?.siteId ?? (this.isOutside(id) ? null : NOWHERE);
  }

  /** Reads these places anew, and says whether one of them is at another site than was known. */
  async haveMoved(tx: Pick<Tx, 'query'>, ids: readonly number[]): Promise<boolean> {
    const before = ids.map((id) => this.siteOf(id));
    await this.read(tx, ids);
    return ids.some((id, i) => this.siteOf(id) !== before[i]);
  }

  private async read(tx: Pick<Tx, 'query'>, ids: readonly number[]): Promise<void> {
    const found = await prepared<{ id: number; kind: string; siteId: number | null }[]>(
      tx,
      `SELECT id, kind, site_id AS siteId FROM place WHERE id IN (${marks(ids)})`,
      ids,
    );
    for (const { id, kind, siteId } of found) this.known.set(id, { outside: isOutside(kind) ? kind : null, siteId });
  }
}
