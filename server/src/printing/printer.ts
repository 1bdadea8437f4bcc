import { connect } from 'node:net';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { one, Outbox } from '../platform/index.js';

const TIMEOUT_MS = 5_000;

/** Sends papers to printers over raw TCP. A job that cannot be printed waits in the tray and is tried again. */
@Injectable()
export class Printer implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('print.label', async ({ payload }) => {
      const parcel = await one<{ label_pdf: Buffer | null; site: string; address: string | null }>(
        this.source,
        `SELECT p.label_pdf, s.name AS site, (SELECT r.address FROM printer r WHERE r.site_id = s.id ORDER BY r.id LIMIT 1) AS address
         FROM (SELECT p.label_pdf, o.site_id FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.code = ?
           UNION ALL SELECT p.label_pdf, t.from_site_id FROM transfer_parcel p JOIN transfer t ON t.id = p.transfer_id WHERE p.code = ?) p JOIN site s ON s.id = p.site_id`,
        [payload['parcel'], payload['parcel']],
      );
      if (!parcel?.label_pdf) return;
      if (!parcel.address) throw new Error(`${parcel.site} has no printer. Add one in Setup, Printers`);
      await print(parcel.address, parcel.label_pdf);
    });
    this.outbox.handle('print.job', async ({ payload }) => {
      const job = await one<{ pdf: Buffer; address: string }>(
        this.source,
        'SELECT j.pdf, p.address FROM print_job j JOIN printer p ON p.id = j.printer_id WHERE j.id = ?',
        [payload['job']],
      );
      if (job) await print(job.address, job.pdf);
    });
  }
}

/** Resolves when the printer at `host:port` has taken the last byte and closed; rejects where it does not answer in time. */
export function print(address: string, pdf: Buffer): Promise<void> {
  const [host = '127.0.0.1', port = '9100'] = address.split(':');
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port: Number(port) }, () => socket.end(pdf));
    socket.setTimeout(TIMEOUT_MS, () => socket.destroy(new Error('The printer does not answer')));
    socket.on('error', reject);
    socket.on('close', (failed) => (failed ? undefined : resolve()));
    socket.resume();
  });
}
