import { connect } from 'node:net';
import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Config } from '../platform/config.js';
import { one } from '../platform/database/tx.js';
import { Outbox } from '../platform/outbox.js';

const TIMEOUT_MS = 5_000;

/** Sends papers to a printer over raw TCP. */
@Injectable()
export class Printer implements OnModuleInit {
  constructor(
    private readonly config: Config,
    private readonly source: DataSource,
    private readonly outbox: Outbox,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('print.label', async ({ payload }) => {
      const parcel = await one<{ label_pdf: Buffer | null }>(this.source, 'SELECT label_pdf FROM parcel WHERE code = ?', [
        payload['parcel'],
      ]);
      if (parcel?.label_pdf) await this.print(parcel.label_pdf);
    });
  }

  /** Resolves when the printer has taken the last byte and closed; rejects where it does not answer in time. */
  print(pdf: Buffer): Promise<void> {
    if (!this.config.PRINTER) throw new Error('No printer is set. Set PRINTER to host:port');
    const [host = '127.0.0.1', port = '9100'] = this.config.PRINTER.split(':');
    return new Promise((resolve, reject) => {
      const socket = connect({ host, port: Number(port) }, () => socket.end(pdf));
      socket.setTimeout(TIMEOUT_MS, () => socket.destroy(new Error('The printer does not answer')));
      socket.on('error', reject);
      socket.on('close', (failed) => (failed ? undefined : resolve()));
      socket.resume();
    });
  }
}
