import { Injectable } from '@nestjs/common';
import type { PlaceId } from '@vectrum/core/ids';
import { isFor } from '@vectrum/core/places';
import { type Act, badState, insert, marks, notFound, one, rows, type Tx } from '../platform/index.js';
import { putInto, toSite } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { AllocationService } from './allocation.service.js';
import { Reservations } from './reservations.service.js';

interface Container {
  site_id: number | null;
  parent_id: number | null;
  code: string;
  kind: string;
}

/** Moves totes, carts, pallets and parcels: their parent changes, and nothing within. */
@Injectable()
export class Containers {
  constructor(
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly allocation: AllocationService,
  ) {}

  /**
   * Puts a container somewhere else. Where that is another site, the figures of both sites and what is promised there change
   * by what it holds. `null`: it is carried about its site.
   */
  async move(tx: Tx, act: Act | null, placeId: PlaceId, toId: PlaceId | null): Promise<void> {
    const moving = await one<Container>(tx, 'SELECT site_id, parent_id, code, kind FROM place WHERE id = ? FOR UPDATE', [placeId]);
    const to = toId === null ? moving : await one<Container>(tx, 'SELECT site_id, parent_id, code, kind FROM place WHERE id = ?', [toId]);
    if (!moving?.site_id || !to?.site_id) throw notFound('That place');
    if (!isFor(moving.kind, 'container')) throw badState(`${moving.code} stands where it stands. It cannot be moved`);
    if (moving.parent_id === toId) return;
    const all = await this.within(tx, placeId);
    if (toId !== null && all.includes(toId)) throw badState(`${moving.code} cannot be put into itself`);
    await putInto(tx, placeId, toId);
    await insert(tx, 'container_move', {
      place_id: placeId,
      from_parent_id: moving.parent_id,
      to_parent_id: toId,
      from_site_id: moving.site_id,
      to_site_id: to.site_id,
      person_id: act?.person.id ?? null,
    });
    if (moving.site_id === to.site_id) return;
    await toSite(tx, all, to.site_id);
    const changes = await this.ledger.figuresFollow(tx, all, moving.site_id, to.site_id);
    await this.reservations.moveSite(tx, all, to.site_id);
    await this.allocation.settle(tx, changes);
  }

  /** A container and all that stands in it. */
  private async within(tx: Tx, placeId: PlaceId): Promise<PlaceId[]> {
    const all = new Set([placeId]);
    for (let inside: number[] = [placeId]; inside.length > 0;) {
      const found = await rows<{ id: number }>(tx, `SELECT id FROM place WHERE parent_id IN (${marks(inside)})`, inside);
      inside = found.map((f) => f.id).filter((id) => !all.has(id));
      for (const id of inside) all.add(id);
    }
    return [...all];
  }
}
