import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Checklists, InspectionRules, InspectionsQueries, type WriteCheckDto } from '../inspection/index.js';
import { one, siteDay } from '../platform/index.js';
import { PurchasingService } from '../purchasing/index.js';
import { ReceivingService } from '../receiving/index.js';
import { asOrdered, DemoHands } from './hands.js';
import { actAs } from './morning.js';

const yes = (says: string): WriteCheckDto => ({ says, kind: 'yes', unit: '' });
const FEEDERS: WriteCheckDto[] = [
  yes('Lid closes all round'),
  yes('No cracks when pressed'),
  { says: 'Width across', kind: 'measure', unit: 'mm', low: '328', high: '332' },
];
const GLASS: WriteCheckDto[] = [yes('Cap stands upright'), { says: 'Colour of the glass', kind: 'words', unit: '' }];

/** Which goods are looked at, a delivery that waits for it, and one of which a part was rejected. */
@Injectable()
export class DemoInspecting {
  constructor(
    private readonly source: DataSource,
    private readonly checklists: Checklists,
    private readonly rules: InspectionRules,
    private readonly purchasing: PurchasingService,
    private readonly receiving: ReceivingService,
    private readonly hands: DemoHands,
    private readonly queries: InspectionsQueries,
  ) {}

  async look(): Promise<void> {
    await this.agree();
    await this.take();
    await this.judge();
  }

  private async agree(): Promise<void> {
    const buyer = await actAs(this.source, 'Piet');
    const act = () => ({ ...buyer, key: randomUUID() });
    const feeders = await this.checklists.add(act(), { name: 'Feeders', checks: FEEDERS });
    const glass = await this.checklists.add(act(), { name: 'Glass from new moulds', checks: GLASS });
    await this.rules.add(act(), { sku: 'FDR-RAP', kind: 'always', n: 1, checklistId: feeders.id });
    await this.rules.add(act(), { sku: 'FDR-CON', supplier: 'CORRIN', kind: 'every', n: 3 });
    await this.rules.add(act(), { sku: 'JAR-042-MI', kind: 'until-proven', n: 3, checklistId: glass.id });
    await this.rules.add(act(), { supplier: 'MARROWDALE', kind: 'every', n: 5 });
  }

  /** Feeders came this morning and stand in the inspection corner. */
  private async take(): Promise<void> {
    const [buyer, ruben] = await Promise.all([actAs(this.source, 'Piet'), actAs(this.source, 'Ruben')]);
    const order = await this.purchasing.add(
      { ...buyer, key: randomUUID() },
      {
        supplier: 'CORRIN',
        siteId: 1,
        expectedOn: (await siteDay(this.source, 1)).today,
        note: '',
        lines: [
          { sku: 'FDR-RAP', packs: 6, factor: 10, price: '41.00' },
          { sku: 'FDR-CON', packs: 4, factor: 10, price: '27.00' },
        ],
      },
    );
    await this.purchasing.place({ ...buyer, key: randomUUID() }, order.code, 1);
    const { task } = await this.receiving.task(this.source.manager, ruben.person, order.code);
    for (const [i, units] of [60, 40].entries())
      await this.hands.does(ruben, {
        ...asOrdered,
        document: order.code,
        lineId: task.lines[i]?.lineId ?? 0,
        itemId: task.lines[i]?.itemId ?? 0,
        units,
        toPlaceId: (task.inspection ?? task.dock).id,
      });
    await this.hands.does(ruben, { kind: 'close-arrival', document: order.code, paper: 'CP-40177' });
  }

  /** Most contact feeders were right, and are to be put away; the rapid ones still wait. */
  private async judge(): Promise<void> {
    const ruben = await actAs(this.source, 'Ruben');
    const contact = await one<{ id: number }>(this.source, `SELECT id FROM item WHERE sku = 'FDR-CON'`);
    const goods = (await this.queries.task(this.source.manager, 1)).goods.find((g) => g.itemId === contact?.id);
    if (!goods) return;
    const { inspection, lotId, placeId } = goods;
    const judge = (units: number, verdict: 'pass' | 'quarantine', reason: string) =>
      this.hands.does(ruben, { kind: 'judge', inspection, lotId, placeId, units, verdict, reason, how: 'scanned' });
    await judge(36, 'pass', '');
    await judge(4, 'quarantine', 'Lid does not close');
  }
}
