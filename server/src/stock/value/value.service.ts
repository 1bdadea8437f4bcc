import { Injectable } from '@nestjs/common';
import { accountFor, type Account } from '@vectrum/core/costing';
import { decimalText, dividedBy, micro, times, type Micro } from '@vectrum/core/money';
import type { OutsideKind } from '@vectrum/core/places';
import { insert, more, num, one, rows, type Tx, update } from '../../platform/index.js';
import { SettingsService } from '../../settings/index.js';
import { enterValue } from './entries.js';

/** What goods that come in are worth, in the house's money, and what that is made of. */
export interface Worth {
  value: Micro;
  parts: readonly { kind: 'price' | 'charge'; says: string; document: string | null; amount: Micro }[];
}

/** A movement over the threshold of the house. */
export interface Crossing {
  movementId: number;
  itemId: number;
  units: number;
  direction: 'in' | 'out';
  /** The kind of place on the other side; nowhere for what was there when the books began. */
  outside: OutsideKind | 'nowhere';
  document: string | null;
  reversesId: number | null;
  worth: Worth | null;
}

const OTHER_SIDE = `SELECT IF(debit = 'stock', credit, debit) AS other FROM value_entry WHERE movement_id = ? AND 'stock' IN (debit, credit) ORDER BY id LIMIT 1`;

interface Pool {
  units: number;
  value: Micro;
}

/**
 * Keeps what stock is worth: every unit that comes in makes a layer, every unit that goes takes from the oldest. What a unit
 * that goes is worth is the pool's average, or its layers' cost, as the company has chosen. Nothing is lost to rounding: the
 * last unit takes all that is left. Called by the ledger alone, in its transaction, after balances and site figures.
 */
@Injectable()
export class ValueService {
  constructor(private readonly settings: SettingsService) {}

  async follow(tx: Tx, crossings: readonly Crossing[]): Promise<void> {
    if (crossings.length === 0) return;
    const byLayers = (await this.settings.get(tx, 'costMethod')) === 'first in, first out';
    const items = [...new Set(crossings.map((c) => c.itemId))].sort((a, b) => a - b);
    for (const itemId of items) {
      const pool = await this.pool(tx, itemId);
      for (const crossing of crossings.filter((c) => c.itemId === itemId)) {
        if (crossing.direction === 'in') await this.put(tx, pool, crossing);
        else await this.take(tx, pool, crossing, byLayers);
      }
      await update(tx, 'cost_pool', { item_id: itemId }, { units: pool.units, value: decimalText(pool.value) });
    }
  }

  private async pool(tx: Tx, itemId: number): Promise<Pool> {
    await tx.query('INSERT INTO cost_pool (item_id) VALUES (?) ON DUPLICATE KEY UPDATE item_id = item_id', [itemId]);
    const pool = await one<{ units: number; value: string }>(tx, 'SELECT units, value FROM cost_pool WHERE item_id = ? FOR UPDATE', [
      itemId,
    ]);
    return { units: num(pool?.units), value: micro(pool?.value ?? '0') };
  }

  private async put(tx: Tx, pool: Pool, c: Crossing): Promise<void> {
    const back = c.reversesId === null ? null : await this.entered(tx, c.reversesId);
    const value = back ?? c.worth?.value ?? (await this.known(tx, pool, c));
    const layer = await insert(tx, 'cost_layer', {
      item_id: c.itemId,
      movement_id: c.movementId,
      document: c.document,
      units: c.units,
      units_left: c.units,
      value: decimalText(value),
      value_left: decimalText(value),
    });
    for (const part of c.worth?.parts ?? [])
      await insert(tx, 'cost_layer_part', {
        layer_id: layer,
        kind: part.kind,
        says: part.says.slice(0, 80),
        document: part.document,
        amount: decimalText(part.amount),
      });
    pool.units += c.units;
    pool.value += value;
    await this.enter(tx, c, 'stock', await this.otherSide(tx, c), value, layer);
  }

  private async take(tx: Tx, pool: Pool, c: Crossing, byLayers: boolean): Promise<void> {
    const own =
      c.reversesId === null
        ? null
        : await one<{ id: number; value: string }>(tx, 'SELECT id, value FROM cost_layer WHERE movement_id = ?', [c.reversesId]);
    const layered = await this.takeLayers(tx, c, own?.id ?? 0);
    const average = pool.units === 0 ? 0n : dividedBy(times(pool.value, c.units), pool.units);
    let value = byLayers ? layered : own ? micro(own.value) : average;
    // The last unit takes what is left, and nothing takes more than there is.
    if (pool.units === c.units || value > pool.value) value = pool.value;
    pool.units -= c.units;
    pool.value -= value;
    await this.enter(tx, c, await this.otherSide(tx, c), 'stock', value, null);
  }

  /** Takes units from layers: from their own first where an arrival is taken back, then from the oldest. Returns their cost. */
  private async takeLayers(tx: Tx, c: Crossing, ownId: number): Promise<Micro> {
    const layers = await rows<{ id: number; left: number; value: string }>(
      tx,
      'SELECT id, units_left AS `left`, value_left AS value FROM cost_layer WHERE item_id = ? AND units_left > 0 ORDER BY id = ? DESC, id FOR UPDATE',
      [c.itemId, ownId],
    );
    let wanted = c.units;
    let cost = 0n;
    for (const layer of layers) {
      if (wanted === 0) break;
      const units = Math.min(wanted, layer.left);
      const part = units === layer.left ? micro(layer.value) : dividedBy(times(micro(layer.value), units), layer.left);
      await update(tx, 'cost_layer', { id: layer.id }, { units_left: more(-units), value_left: more(decimalText(-part)) });
      wanted -= units;
      cost += part;
    }
    return cost;
  }

  /** What goods are taken to be worth when nobody says: the pool's average, what they last cost, what the item says. */
  private async known(tx: Tx, pool: Pool, c: Crossing): Promise<Micro> {
    if (pool.units > 0) return dividedBy(times(pool.value, c.units), pool.units);
    const last = await one<{ units: number; value: string }>(
      tx,
      'SELECT units, value FROM cost_layer WHERE item_id = ? ORDER BY id DESC LIMIT 1',
      [c.itemId],
    );
    if (last) return dividedBy(times(micro(last.value), c.units), last.units);
    const item = await one<{ cost: string | null }>(tx, 'SELECT cost FROM item WHERE id = ?', [c.itemId]);
    return times(micro(item?.cost ?? '0'), c.units);
  }

  /** What a movement took out of stock, for its coming back. */
  private async entered(tx: Tx, movementId: number): Promise<Micro | null> {
    const taken = await one<{ amount: string }>(tx, `SELECT amount FROM value_entry WHERE movement_id = ? AND credit = 'stock' LIMIT 1`, [
      movementId,
    ]);
    return taken ? micro(taken.amount) : null;
  }

  /** The account on the other side of stock: what is taken back goes where it was entered. */
  private async otherSide(tx: Tx, c: Crossing): Promise<Account> {
    const first = c.reversesId === null ? null : await one<{ other: Account }>(tx, OTHER_SIDE, [c.reversesId]);
    return first?.other ?? accountFor(c.outside);
  }

  private enter(tx: Tx, c: Crossing, debit: Account, credit: Account, amount: Micro, layerId: number | null): Promise<void> {
    return enterValue(tx, { item_id: c.itemId, movement_id: c.movementId, layer_id: layerId, document: c.document }, debit, credit, amount);
  }

  /**
   * A share of a late charge, or of a difference in price: what falls on units still there is added to what they are worth,
   * and all of it to what the layer has cost.
   */
  async late(
    tx: Tx,
    layer: { id: number; itemId: number },
    share: Micro,
    toStock: Micro,
    part: { says: string; document: string },
  ): Promise<void> {
    await this.pool(tx, layer.itemId);
    await update(tx, 'cost_pool', { item_id: layer.itemId }, { value: more(decimalText(toStock)) });
    await update(tx, 'cost_layer', { id: layer.id }, { value: more(decimalText(share)), value_left: more(decimalText(toStock)) });
    await insert(tx, 'cost_layer_part', {
      layer_id: layer.id,
      kind: 'late',
      says: part.says.slice(0, 80),
      document: part.document,
      amount: decimalText(share),
    });
  }
}
