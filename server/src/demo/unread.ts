import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { IntakeService } from '../connectors/index.js';
import { one, Problem, signature, siteDay } from '../platform/index.js';
import { SupplierDocuments } from '../receiving/index.js';
import { writeOrderResponse } from '../ubl/index.js';
import { SUPPLIER_KEY } from './buying.js';

/** What has come this morning and cannot be understood: an order of the web shop, and an answer of a supplier. */
@Injectable()
export class DemoUnread {
  constructor(
    private readonly source: DataSource,
    private readonly intake: IntakeService,
    private readonly documents: SupplierDocuments,
  ) {}

  async come(): Promise<void> {
    await refused(this.order());
    await refused(this.answer());
  }

  /** The shop was changed overnight, and now writes quantities in words. */
  private async order(): Promise<unknown> {
    const shop = await one<{ secret: string }>(this.source, `SELECT secret FROM channel WHERE code = 'SHOP'`);
    const body = Buffer.from(
      JSON.stringify({
        ref: 'WS-20417',
        placedAt: new Date().toISOString(),
        customer: 'Juno Appleyard',
        email: 'juno.appleyard@mail.example',
        address: { line: 'The Croft', city: 'Skelby', postcode: 'SK2 9LD', country: 'GB' },
        lines: [{ sku: 'JAR-454-RD', quantity: 'two dozen', price: '0.62' }],
      }),
    );
    return this.intake.fromWebhook('SHOP', body, signature(shop?.secret ?? '', body));
  }

  /** It confirms an order by a number that nobody here has given. */
  private async answer(): Promise<unknown> {
    const { today } = await siteDay(this.source, 1);
    const seller = { code: 'OULDEN', name: 'Oulden Syrup Mill', addressLines: [], email: '', phone: '' };
    const us = { code: '', name: 'Tarn & Thistle', addressLines: ['Millrace'], email: 'orders@tarnthistle.example', phone: '' };
    const response = { id: `OU-${today.slice(5)}`, issuedOn: today, order: 'SYRUP-MAY', seller: seller.name, promisedOn: today };
    const body = Buffer.from(writeOrderResponse({ ...response, says: 'accepted', note: '', lines: [] }, seller, us, 'GBP'));
    return this.documents.fromSupplier('OULDEN', body, signature(SUPPLIER_KEY, body));
  }
}

/** Waits for what is to be refused, and kept. */
async function refused(sent: Promise<unknown>): Promise<void> {
  const problem = await sent.then(
    () => undefined,
    (thrown: unknown) => thrown,
  );
  if (!(problem instanceof Problem) || problem.status >= 500)
    throw new Error(`The demo's message was not refused as one is: ${String(problem)}`);
}
