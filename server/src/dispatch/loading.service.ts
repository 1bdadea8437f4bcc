import { Injectable } from '@nestjs/common';
import { checkLoad, isEarly, type LoadCommand, type UnloadCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { ParcelsService } from '../packing/index.js';
import { type Act, marks, mustBeAt, Problem, refused, type Tx } from '../platform/index.js';
import { LanesQueries } from './lanes.queries.js';
import { lockParcels } from './lock-parcels.js';

interface LoadUndo extends Record<string, unknown> {
  parcels: number[];
}

/** Puts parcels onto a van and takes them off again. Stock stays in the lane until the driver takes it. */
@Injectable()
export class LoadingService {
  constructor(
    private readonly lanes: LanesQueries,
    private readonly parcels: ParcelsService,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('load', 'dispatch', async (tx, _, payload) => {
      const { parcels: ids } = payload as LoadUndo;
      const gone = await tx.query<{ code: string }[]>(
        `SELECT code FROM parcel WHERE id IN (${marks(ids)}) AND state = 'gone' LIMIT 1`,
        ids,
      );
      if (gone[0]) throw new Problem(409, 'undo', `${gone[0].code} has left with the van`);
      await this.parcels.onVan(tx, ids, false);
    });
  }

  async load(tx: Tx, act: Act, command: LoadCommand): Promise<FloorAnswerDto> {
    mustBeAt(act.person, command.siteId);
    const codes = [...new Set(command.parcels.map((p) => p.toUpperCase()))];
    const rows = await lockParcels(tx, codes);
    const task = await this.lanes.task(tx, `${command.siteId}-${command.carrier}`);
    const found = codes.map((code) => {
      const parcel = task.parcels.find((p) => p.code === code);
      if (!parcel) throw refused(notHere(code, task.elsewhere, task.lane));
      const refusal = checkLoad(parcel);
      if (refusal) throw refused(refusal);
      if (isEarly(parcel.leavesAt, task.van) && !command.early)
        throw refused({ band: 'not-this', title: code, detail: 'It is meant for a later van. Scan it again to take it along now' });
      return parcel;
    });
    const ids = rows.filter((r) => codes.includes(r.code)).map((r) => r.id);
    await this.parcels.onVan(tx, ids, true);
    const [one] = found;
    const single = found.length === 1 ? one : undefined;
    const activityId = await this.activity.record(tx, act, {
      kind: 'load',
      glyph: 'go',
      title: single ? `${single.code} onto the van` : `${found.length} parcels onto the van`,
      detail: task.carrierName,
      ...(single ? { document: single.order } : {}),
      siteId: task.siteId,
      how: command.how,
      undo: { parcels: ids } satisfies LoadUndo,
    });
    return { activityId };
  }

  async unload(tx: Tx, act: Act, command: UnloadCommand): Promise<FloorAnswerDto> {
    mustBeAt(act.person, command.siteId);
    const code = command.parcel.toUpperCase();
    const [row] = await lockParcels(tx, [code]);
    const task = await this.lanes.task(tx, `${command.siteId}-${command.carrier}`);
    const parcel = task.parcels.find((p) => p.code === code);
    if (!row || !parcel) throw refused(notHere(code, task.elsewhere, task.lane));
    if (!parcel.loaded) throw refused({ band: 'not-this', title: code, detail: 'It is not on the van' });
    await this.parcels.onVan(tx, [row.id], false);
    const activityId = await this.activity.record(tx, act, {
      kind: 'load',
      glyph: 'undo',
      title: `${code} off the van`,
      detail: `back to lane ${task.lane}`,
      document: parcel.order,
      siteId: task.siteId,
    });
    return { activityId };
  }
}

function notHere(code: string, elsewhere: readonly { code: string; carrierName: string; lane: string }[], lane: string) {
  const other = elsewhere.find((p) => p.code === code);
  const detail = other
    ? `It goes with ${other.carrierName}: lane ${other.lane}`
    : `It does not stand in lane ${lane}. Look it up before it goes`;
  return { band: 'not-this' as const, title: code, detail };
}
