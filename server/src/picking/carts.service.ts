import { Injectable } from '@nestjs/common';
import { type CartCommand, checkCart } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { Containers } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { type Act, one, Problem, refused, rows, type Tx, update } from '../platform/index.js';
import { cartsAt } from './carts.queries.js';
import { PickingService } from './picking.service.js';
import { mustBeOpen, roundOf } from './rounds.js';
import { freeEmpty } from './totes.js';

interface CartUndo extends Record<string, unknown> {
  round: string;
  cartId: number;
  /** The cart that it was walked with before. */
  before: number | null;
  /** The totes that were tied with it. */
  toteIds: number[];
}

/** Walks rounds with carts: one scan brings the totes that stand on it, and all totes of the round stand on it from then on. */
@Injectable()
export class CartsService {
  constructor(
    private readonly picking: PickingService,
    private readonly containers: Containers,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('cart', 'pick', (tx, act, payload) => this.takeBack(tx, act, payload as CartUndo));
  }

  /** Takes the cart for a round, which is begun where it waited, with the totes that the phone saw on it. All of it or nothing. */
  async walkWith(tx: Tx, act: Act, command: CartCommand): Promise<FloorAnswerDto> {
    mustBeOpen(await roundOf(tx, act, command.round, 'alone'));
    const round = await this.picking.working(tx, act, command.round);
    const place = await this.codebook.place(tx, round.site_id, command.cartPlaceId);
    if (!place) throw refused({ band: 'unknown', title: 'No such cart', detail: 'Scan the code on the cart' });
    await one(tx, 'SELECT id FROM place WHERE id = ? FOR UPDATE', [place.id]);
    const [cart] = await cartsAt(tx, { id: round.id, siteId: round.site_id }, place.id);
    const refusal = checkCart({ siteId: round.site_id }, place, cart);
    if (refusal) throw refused(refusal);
    await update(tx, 'round', { id: round.id }, { cart_id: place.id });
    const toteIds: number[] = [];
    for (const { orderId, totePlaceId } of [...command.totes].sort((a, b) => a.totePlaceId - b.totePlaceId)) {
      const tote = await this.codebook.place(tx, round.site_id, totePlaceId);
      if (tote && !cart?.toteIds.includes(tote.id))
        throw refused({
          band: 'not-this',
          title: `Tote ${tote.code}`,
          detail: `It does not stand empty on ${place.code} any more. Scan the cart again`,
        });
      await this.picking.orderOn(tx, round, orderId);
      toteIds.push((await this.picking.claim(tx, act, { ...round, cart_id: place.id }, orderId, tote)).id);
    }
    for (const id of await this.totesOf(tx, round.id)) await this.containers.move(tx, act, id, place.id);
    const activityId = await this.activity.record(tx, act, {
      kind: 'cart',
      glyph: 'go',
      title: `Cart ${place.code} for ${round.code}`,
      detail: toteIds.length === 0 ? 'its totes stand on it' : `with ${toteIds.length} ${toteIds.length === 1 ? 'tote' : 'totes'}`,
      document: round.code,
      siteId: round.site_id,
      undo: { round: round.code, cartId: place.id, before: round.cart_id, toteIds } satisfies CartUndo,
    });
    return { activityId };
  }

  /** The cart and its totes are free again, while nothing lies in them. */
  private async takeBack(tx: Tx, act: Act, undo: CartUndo): Promise<void> {
    const round = await roundOf(tx, act, undo.round, 'alone');
    if (round.state !== 'picking' || round.cart_id !== undo.cartId)
      throw new Problem(409, 'undo', `${undo.round} is not walked with this cart any more`);
    for (const toteId of undo.toteIds) await freeEmpty(tx, round.id, toteId);
    await update(tx, 'round', { id: round.id }, { cart_id: undo.before });
    for (const id of await this.totesOf(tx, round.id)) await this.containers.move(tx, act, id, undo.before);
  }

  private async totesOf(tx: Tx, roundId: number): Promise<number[]> {
    const found = await rows<{ id: number }>(
      tx,
      'SELECT tote_id AS id FROM tote_use WHERE round_id = ? AND ended_at IS NULL ORDER BY tote_id',
      [roundId],
    );
    return found.map((t) => t.id);
  }
}
