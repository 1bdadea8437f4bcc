import { Injectable } from '@nestjs/common';
import type { LoadTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { CarriersQueries } from '../carriers/index.js';
import { TrackingService } from '../tracking/index.js';
import { LanesQueries } from '../dispatch/index.js';
import { inTransaction, one, Outbox } from '../platform/index.js';
import { DemoHands } from './hands.js';
import { actAs } from './morning.js';

/** A name, as a driver in a hurry writes it. */
const SCRIBBLE = 'M60 120L90 60L120 130L150 62L165 128M185 128L205 92L225 126L245 94L262 128L300 118L330 60L318 132L360 112L430 108L540 98';

/** The vans of the morning: one has taken a parcel, the next is being loaded. */
@Injectable()
export class DemoDispatch {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly lanes: LanesQueries,
    private readonly hands: DemoHands,
    private readonly carriers: CarriersQueries,
    private readonly tracking: TrackingService,
  ) {}

  /** Needs the carriers' stand-ins; without them no parcel has a label, and nothing is loaded. */
  async load(): Promise<void> {
    await this.outbox.runDue();
    const packer = await actAs(this.source, 'Dilys');
    const carrier = { siteId: 1, carrier: 'HARRIER' };
    const ready = (task: LoadTask) => task.parcels.filter((p) => p.labelled && p.held === null).map((p) => p.code);
    const [first, second] = ready(await inTransaction(this.source, (tx) => this.lanes.task(tx, '1-HARRIER')));
    const loads = (parcel: string) => this.hands.does(packer, { kind: 'load', ...carrier, parcels: [parcel], early: true, how: 'scanned' });
    if (!first || !second) return;
    await loads(first);
    await this.hands.does(packer, { kind: 'hand-over', ...carrier, parcels: [first], driver: 'Odo Fenn', signature: SCRIBBLE });
    await loads(second);
    await this.outbox.runDue();
    await this.late(first);
  }

  /** The carrier has no driver for it today: the order desk has a parcel to see to. */
  private async late(parcel: string): Promise<void> {
    const kept = await one<{ tracking: string }>(this.source, 'SELECT tracking FROM parcel WHERE code = ?', [parcel]);
    const carrier = await this.carriers.spokenTo('HARRIER');
    await this.tracking.hear(carrier, [
      { tracking: kept?.tracking ?? '', what: 'delayed', at: new Date(), note: 'No driver for this round' },
    ]);
  }
}
