import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks, siteKey } from '../floor/index.js';
import { one } from '../platform/index.js';
import { CheckCommandDto, InspectBundleDto, JudgeCommandDto } from './inspection.dto.js';
import { InspectionsQueries } from './inspections.queries.js';
import { InspectionsService } from './inspections.service.js';

/** Looking at goods at the floor's doors. */
@Injectable()
export class InspectionFloor {
  constructor(commands: FloorCommands, tasks: FloorTasks, queries: InspectionsQueries, inspections: InspectionsService, about: AboutWords) {
    tasks.register({
      kind: 'inspect',
      right: 'inspect',
      bundle: InspectBundleDto,
      read: async (tx, _, key) => ({ task: await queries.task(tx, siteKey(key)), siteId: siteKey(key) }),
    });
    commands.register({
      kind: 'check',
      right: 'inspect',
      dto: CheckCommandDto,
      work: (tx, act, command) => inspections.answer(tx, act, command),
      about: async (tx, { inspection, no, value }) => ({
        what: `Check ${no} of ${inspection}: ${value}`,
        siteId: await about.siteOf(tx, { document: inspection, table: 'inspection' }),
        document: inspection,
      }),
    });
    commands.register({
      kind: 'judge',
      right: 'inspect',
      dto: JudgeCommandDto,
      work: (tx, act, command) => inspections.judge(tx, act, command),
      about: async (tx, { inspection, units, verdict, placeId }) => {
        const found = await one<{ itemId: number }>(tx, 'SELECT item_id AS itemId FROM inspection WHERE code = ?', [inspection]);
        const goods = await about.goods(tx, { itemId: found?.itemId ?? 0, units });
        return {
          what: `${goods} ${verdict === 'pass' ? 'passed' : 'rejected'}, ${inspection}`,
          siteId: await about.siteOf(tx, { place: placeId }),
          document: inspection,
        };
      },
    });
  }
}
