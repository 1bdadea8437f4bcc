import { randomUUID } from 'node:crypto';
import { nextGather } from '@vectrum/core/scan';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Act, find, inTransaction } from '../platform/index.js';
import { TransferParcels, Transfers, TransfersQueries } from '../transfers/index.js';
import { Builds } from '../building/index.js';
import { DemoHands } from './hands.js';
import { actAs } from './morning.js';

const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });

/** What goes between the sites: one on the road to the quay, one that the quay has asked for; and stands that are to be built. */
@Injectable()
export class DemoTransfers {
  constructor(
    private readonly source: DataSource,
    private readonly transfers: Transfers,
    private readonly queries: TransfersQueries,
    private readonly hands: DemoHands,
    private readonly builds: Builds,
    private readonly parcels: TransferParcels,
  ) {}

  async send(): Promise<void> {
    const [piet, ines] = await Promise.all([actAs(this.source, 'Piet'), actAs(this.source, 'Ines')]);
    const [mill, quay] = await Promise.all(['MILL', 'QUAY'].map((code) => find(this.source, 'site', { code })));
    if (!mill || !quay) throw new Error('The demo has no sites');
    const ask = (lines: readonly (readonly [string, number])[], note: string) =>
      this.transfers.request(fresh(piet), {
        fromSiteId: mill.id,
        toSiteId: quay.id,
        note,
        lines: lines.map(([sku, units]) => ({ sku, units })),
      });
    const { code } = await ask([['BOK-YEAR', 12], ['TOOL-STD', 10], ['VEIL-RND', 8]], 'For the harbour fair'); // prettier-ignore
    for (;;) {
      const task = await inTransaction(this.source, (tx) => this.queries.gather(tx, code));
      const next = nextGather(task, { pending: [] });
      if (!next) break;
      const { line, bin, units } = next;
      await this.hands.does(ines, {
        kind: 'gather',
        document: code,
        lineId: line.lineId,
        itemId: line.itemId,
        lotId: bin.lotId,
        placeId: bin.placeId,
        units,
        how: 'scanned',
      });
    }
    for (const weightG of [8_200, 6_400]) {
      const t = await find(this.source, 'transfer', { code });
      await this.parcels.pack(fresh(ines), code, t?.version ?? 1, { weightG, box: null, service: null });
    }
    await this.hands.does(ines, { kind: 'send-off', document: code, carrier: 'own van', tracking: '' });
    await ask(
      [
        ['CAGE-QN', 20],
        ['BRSH-BEE', 6],
      ],
      'The shop has run out',
    );
  }
}
