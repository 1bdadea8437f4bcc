import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CarrierDesk, CarriersQueries } from '../carriers/index.js';
import { one, Outbox, rows } from '../platform/index.js';

/** Tells a carrier's system what its driver has taken; asked again until it has heard. */
@Injectable()
export class ManifestService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly carriers: CarriersQueries,
    private readonly desk: CarrierDesk,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('carrier.manifest', async ({ payload }) => {
      const code = String(payload['handOver']);
      const head = await one<{ carrierId: number; at: Date; driver: string | null }>(
        this.source,
        'SELECT carrier_id AS carrierId, at, driver FROM hand_over WHERE code = ?',
        [code],
      );
      const carrier = head && (await this.carriers.byId(head.carrierId));
      if (!head || !carrier) return;
      const parcels = await rows<{ parcel: string; tracking: string; weightG: number }>(
        this.source,
        'SELECT code AS parcel, tracking, weight_g AS weightG FROM parcel WHERE hand_over = ? ORDER BY code',
        [code],
      );
      await this.desk.manifest(carrier, { reference: code, at: head.at, driver: head.driver, parcels });
    });
  }
}
