import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { CarrierDesk, CarriersQueries } from '../carriers/index.js';
import { claimRows, LOGGER, update, Worker } from '../platform/index.js';
import { readEvents } from './events.js';
import { TrackingService } from './tracking.service.js';

const POLL_SECONDS = 30;
const BEAT_MS = 5_000;

interface Poll {
  id: number;
  carrierId: number;
  seen: string;
}

/** Asks each carrier that has a system what became of its parcels: what it sends by itself may be lost on the way. */
@Injectable()
export class TrackingPolling extends Worker<Poll> {
  protected readonly beatMs = BEAT_MS;

  constructor(
    private readonly source: DataSource,
    private readonly carriers: CarriersQueries,
    private readonly desk: CarrierDesk,
    private readonly tracking: TrackingService,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  protected async claim(most: number): Promise<Poll[]> {
    await this.source.query(
      'INSERT IGNORE INTO carrier_poll (carrier_id) SELECT id FROM carrier WHERE base_url IS NOT NULL AND id NOT IN (SELECT carrier_id FROM carrier_poll)',
    );
    return claimRows<Poll>(this.source, {
      table: 'carrier_poll',
      select: 'j.id, j.carrier_id AS carrierId, j.seen',
      due: 'j.asked_at IS NULL OR j.asked_at < UTC_TIMESTAMP(3) - INTERVAL ? SECOND',
      params: [POLL_SECONDS],
      most,
      lease: 'asked_at = UTC_TIMESTAMP(3)',
    });
  }

  protected async carryOut({ id, carrierId, seen }: Poll): Promise<void> {
    const carrier = await this.carriers.byId(carrierId);
    if (!carrier?.base_url) return;
    try {
      const said = await this.desk.events(carrier, seen);
      if (said) {
        const { events, refused } = readEvents(said.message, new Date());
        await this.tracking.hear(carrier, events);
        if (refused.length > 0)
          this.log.warn({ carrier: carrier.code, refused: refused.slice(0, 5) }, 'events of a carrier were not understood');
      }
      await update(this.source, 'carrier_poll', { id }, { why: null, ...(said ? { seen: said.seen } : {}) });
    } catch (thrown) {
      const why = thrown instanceof Error ? thrown.message : String(thrown);
      await update(this.source, 'carrier_poll', { id }, { why: why.slice(0, 300) });
      this.log.warn({ carrier: carrier.code, why }, 'carrier did not say what became of its parcels');
    }
  }
}
