import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CancellingService, EntryService, HoldsService } from '../order-desk/index.js';
import { type Act, addDays, siteDay, theRow } from '../platform/index.js';
import { actAs } from './morning.js';

const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });

/** What the order desk has keyed this morning: a quote that waits for its customer, an order that waits for the bank, one that is urgent, and one called off. */
@Injectable()
export class DemoDesk {
  constructor(
    private readonly source: DataSource,
    private readonly entry: EntryService,
    private readonly holds: HoldsService,
    private readonly cancelling: CancellingService,
  ) {}

  async key(): Promise<void> {
    const orla = await actAs(this.source, 'Orla');
    const { today } = await siteDay(this.source, 1);
    await this.order(
      orla,
      'MOORFOOT',
      [
        ['JAR-454-RD', 48, '6', '38.40'],
        ['LID-63-GD', 1, '288', '0.13'],
      ],
      {
        quote: true,
        quotedUntil: addDays(today, 14),
      },
    );
    const waits = await this.order(
      orla,
      'ALDERBEES',
      [
        ['SMK-LGE', 1, '2', '24.50'],
        ['TOOL-JH', 1, '4', '7.90'],
      ],
      { ref: 'AV-2281' },
    );
    await this.holds.hold(fresh(orla), waits, 1, {
      kind: 'payment',
      reason: 'First order on account: waits for the bank',
      ownerId: orla.person.id,
    });
    await this.order(orla, 'WICKHILL', [['LBL-MIN-200', 1, '2', '6.20']], { ref: 'WH-0412', speed: 'express' });
    const off = await this.order(orla, 'THORNLEA', [['BOK-YEAR', 1, '10', '9.00']], { ref: 'TGC-0917' });
    await this.cancelling.cancel(fresh(orla), off, 1, { why: 'They found a box of them in the cellar', tell: false });
  }

  /** An order that somebody rang for, keyed for an account; returns its number. */
  async order(
    act: Act,
    account: string,
    lines: [sku: string, factor: number, quantity: string, price: string][],
    more: object,
  ): Promise<string> {
    const c = await theRow(this.source, 'customer', { code: account });
    const { code } = await this.entry.add(fresh(act), {
      account,
      customer: c.name,
      email: c.email,
      phone: c.phone,
      addressLine: c.address_line,
      city: c.city,
      postcode: c.postcode,
      country: c.country,
      siteId: 1,
      promisedAt: null,
      speed: 'standard',
      priority: 0,
      wholeOnly: false,
      notePacker: '',
      notePicker: '',
      ref: '',
      quote: false,
      lines: lines.map(([sku, factor, quantity, price]) => ({ sku, factor, quantity, price })),
      ...more,
    });
    return code;
  }
}
