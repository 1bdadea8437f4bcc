import { Injectable } from '@nestjs/common';
import { travelOf, type TravelEvent, troubleOf } from '@vectrum/core/tracking';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { ParcelsService } from '../packing/index.js';
import { findAll, inTransaction, one, type Tx } from '../platform/index.js';
import { ClaimsService } from './claims.service.js';
import type { CarrierEvent } from './events.js';

interface ParcelRow {
  id: number;
  code: string;
  order: string;
  siteId: number;
  travel: string | null;
}

/** Hears what carriers say of the parcels that they took, in whatever order and however often they say it. */
@Injectable()
export class TrackingService {
  constructor(
    private readonly source: DataSource,
    private readonly parcels: ParcelsService,
    private readonly claims: ClaimsService,
    private readonly activity: ActivityService,
  ) {}

  /** Keeps what is new of it, event by event: one that cannot be kept holds up none of the others. */
  async hear(carrier: { id: number; name: string }, events: readonly CarrierEvent[]): Promise<{ taken: number; unknown: number }> {
    const came = { taken: 0, unknown: 0 };
    for (const event of events) {
      const said = await inTransaction(this.source, (tx) => this.keep(tx, carrier, event));
      if (said === 'new') came.taken++;
      if (said === 'unknown') came.unknown++;
    }
    return came;
  }

  private async keep(tx: Tx, carrier: { id: number; name: string }, event: CarrierEvent): Promise<'new' | 'known' | 'unknown'> {
    const parcel = await one<ParcelRow>(
      tx,
      `SELECT p.id, p.code, p.travel, (SELECT o.code FROM sales_order o WHERE o.id = p.order_id) AS \`order\`, (SELECT w.site_id FROM place w WHERE w.id = p.place_id) AS siteId
       FROM parcel p WHERE p.tracking = ? AND p.carrier_id = ? AND p.state <> 'void' ORDER BY p.id DESC LIMIT 1 FOR UPDATE`,
      [event.tracking, carrier.id],
    );
    if (!parcel) return 'unknown';
    const made = await tx.query<{ affectedRows: number }>(
      'INSERT IGNORE INTO parcel_event (parcel_id, what, note, at) VALUES (?, ?, ?, ?)',
      [parcel.id, event.what, event.note, event.at],
    );
    if (made.affectedRows === 0) return 'known';
    const all = (await findAll(tx, 'parcel_event', { parcel_id: parcel.id }, 'id')) as unknown as TravelEvent[];
    const now = travelOf(all);
    if (now) await this.parcels.travelled(tx, parcel.id, now.what, now.at);
    await this.claims.follow(tx, parcel, troubleOf(all), event.note);
    if (now && now.what !== parcel.travel)
      await this.activity.record(tx, null, {
        kind: 'travel',
        glyph: now.what === 'delivered' ? 'full' : 'half',
        title: `${parcel.code}: ${now.what.replaceAll('-', ' ')}`,
        detail: `${carrier.name}${event.note ? `: ${event.note}` : ''}`,
        document: parcel.order,
        siteId: parcel.siteId,
      });
    return 'new';
  }
}
