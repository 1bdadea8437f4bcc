import { isOutside, type OutsideKind } from '@vectrum/core/places';
import { marks, rows, type Tx } from '../platform/index.js';

/**
 * Which places are outside the house. A place never goes from inside to outside or back, and none outside becomes another, so
 * that what was read once is known for good: a posting need not ask again.
 */
export class OutsidePlaces {
  private readonly known = new Map<number, OutsideKind | null>();

  /** What these places are outside the house, by number; null for those in it. One that is not there is in the house. */
  async kinds(tx: Pick<Tx, 'query'>, ids: readonly number[]): Promise<ReadonlyMap<number, OutsideKind | null>> {
    const fresh = [...new Set(ids)].filter((id) => !this.known.has(id));
    if (fresh.length > 0) {
      const found = await rows<{ id: number; kind: string }>(tx, `SELECT id, kind FROM place WHERE id IN (${marks(fresh)})`, fresh);
      for (const { id, kind } of found) this.known.set(id, isOutside(kind) ? kind : null);
    }
    return this.known;
  }
}
