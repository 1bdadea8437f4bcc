import { Injectable } from '@nestjs/common';
import { insert, num, one, Outbox, rows, type Tx, update } from '../platform/index.js';

/** A label that was asked of a carrier for a parcel. */
export interface AskedLabel {
  id: number;
  reference: string;
}
interface Parcel {
  id: number;
  code: string;
}
interface Asked {
  id: number;
  code: string;
  carrier: string;
  document: string;
  siteId: number | null;
}

/**
 * Every label that is asked of a carrier, written down before it is asked for: what becomes of no parcel is given back, also where the house
 * stopped between the carrier's answer and keeping it. Each wish has a reference of its own, under which a carrier sells one label only.
 */
@Injectable()
export class ParcelLabels {
  constructor(private readonly outbox: Outbox) {}

  /** The wish for this carrier and service, the one under way where there is one. The parcel is locked. */
  async ask(tx: Tx, parcel: Parcel, carrierId: number, service: string): Promise<AskedLabel> {
    const underWay = await one<AskedLabel>(
      tx,
      `SELECT id, reference FROM parcel_label WHERE parcel_id = ? AND carrier_id = ? AND service = ? AND state = 'asked' ORDER BY id DESC LIMIT 1`,
      [parcel.id, carrierId, service],
    );
    if (underWay) return underWay;
    const before = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM parcel_label WHERE parcel_id = ?', [parcel.id]);
    const number = num(before?.n) + 1;
    const reference = number === 1 ? parcel.code : `${parcel.code}/${number}`;
    return { id: await insert(tx, 'parcel_label', { parcel_id: parcel.id, carrier_id: carrierId, service, reference }), reference };
  }

  /** The carrier has answered. Returns whether the label is still wanted; where it is not, it is given back. The parcel is locked. */
  async answered(tx: Tx, id: number, label: { tracking: string; price: string }): Promise<boolean> {
    const wish = await one<{ state: string }>(tx, 'SELECT state FROM parcel_label WHERE id = ? FOR UPDATE', [id]);
    const isWanted = wish?.state === 'asked';
    await update(tx, 'parcel_label', { id }, { state: isWanted ? 'kept' : 'unwanted', tracking: label.tracking, price: label.price });
    if (!isWanted) await this.giveBack(tx, [id]);
    return isWanted;
  }

  /** Whatever was asked or kept for a parcel is wanted no longer: carriers are told. The parcel is locked. */
  async drop(tx: Tx, parcelId: number): Promise<void> {
    const found = await rows<{ id: number }>(
      tx,
      `SELECT id FROM parcel_label WHERE parcel_id = ? AND state IN ('asked','kept') ORDER BY id FOR UPDATE`,
      [parcelId],
    );
    for (const { id } of found) await update(tx, 'parcel_label', { id }, { state: 'unwanted' });
    await this.giveBack(
      tx,
      found.map((f) => f.id),
    );
  }

  /** What a carrier is told of a label that is given back; null where it was given back already. */
  async toGiveBack(tx: Pick<Tx, 'query'>, id: number): Promise<{ carrier: string; reference: string; tracking: string | null } | null> {
    const found = await one<{ carrier: string; reference: string; tracking: string | null }>(
      tx,
      `SELECT c.code AS carrier, l.reference, l.tracking FROM parcel_label l JOIN carrier c ON c.id = l.carrier_id WHERE l.id = ? AND l.state = 'unwanted'`,
      [id],
    );
    return found ?? null;
  }

  async givenBack(tx: Pick<Tx, 'query'>, id: number): Promise<void> {
    await update(tx, 'parcel_label', { id, state: 'unwanted' }, { state: 'void' });
  }

  private async giveBack(tx: Tx, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    const found = await rows<Asked>(
      tx,
      `SELECT l.id, p.code, c.code AS carrier, o.code AS document, w.site_id AS siteId FROM parcel_label l JOIN parcel p ON p.id = l.parcel_id JOIN carrier c ON c.id = l.carrier_id JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id WHERE l.id IN (?) ORDER BY l.id`,
      [ids],
    );
    for (const { id, code, carrier, document, siteId } of found)
      await this.outbox.send(tx, `carrier:${carrier}/${code}`, 'carrier.void', { label: id, parcel: code }, { siteId, document });
  }
}
