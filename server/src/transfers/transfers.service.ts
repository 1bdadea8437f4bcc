import { Injectable } from '@nestjs/common';
import { micro, times, dividedBy, decimalText } from '@vectrum/core/money';
import { goodsWords } from '@vectrum/core/quantity';
import type { GatherCommand, SendOffCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  more,
  mustBeAt,
  mustMatch,
  nextCode,
  NOW,
  one,
  Problem,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { addPlace, dockOf, keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import type { RequestTransferDto, SettleMissingDto } from './transfers.dto.js';
import { goesBy } from './parcels.queries.js';
import { TransferParcels } from './parcels.service.js';
import { type ApartFor, type ApartLine, SettingApart } from './setting-apart.service.js';
import { transferOf, type TransferRow } from './transfer-rows.js';

const STATE_SAYS: Readonly<Record<string, string>> = {
  requested: 'Nothing of it is gathered yet',
  gathering: 'It is being gathered',
  'on-the-road': 'It is on the road already',
  arriving: 'The other site is taking it in already',
  received: 'It is closed',
  cancelled: 'It was called off',
};

const apartFor = (t: Pick<TransferRow, 'code' | 'from_site_id' | 'place_id'>): ApartFor => ({
  code: t.code,
  siteId: t.from_site_id,
  placeId: t.place_id,
  task: 'transfer',
});

/** Goods go from one site to another: asked for, gathered, sent, and what never came is settled. */
@Injectable()
export class Transfers {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly apart: SettingApart,
    private readonly parcels: TransferParcels,
    undo: UndoService,
  ) {
    undo.register('transfer', 'store', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Gathered));
  }

  request(act: Act, asked: RequestTransferDto): Promise<{ code: string }> {
    return this.commands.run(act, 'transfer.request', asked, async (tx) => ({ code: await this.make(tx, act, asked) }));
  }

  /** Asks one site for goods that another wants, for an order if it is named; what is free of them is held for it. Returns its number. */
  async make(tx: Tx, act: Act, asked: RequestTransferDto, orderId: number | null = null): Promise<string> {
    if (asked.fromSiteId === asked.toSiteId) throw badForm({ toSiteId: 'Choose another site' });
    if (!act.person.siteIds.includes(asked.fromSiteId) && !act.person.siteIds.includes(asked.toSiteId))
      mustBeAt(act.person, asked.fromSiteId);
    for (const id of [asked.fromSiteId, asked.toSiteId])
      if (!(await find(tx, 'site', { id }))) throw badForm({ toSiteId: 'There is no such site' });
    const lines = new Map<number, number>();
    for (const [i, { sku, units }] of asked.lines.entries()) {
      const item = await one<{ id: number; kind: string }>(tx, 'SELECT id, kind FROM item WHERE sku = ?', [sku]);
      if (!item) throw badForm({ [`lines.${i}.sku`]: `There is no item ${sku}` });
      if (item.kind === 'kit') throw badForm({ [`lines.${i}.sku`]: 'A kit is no goods of its own. Send its parts' });
      lines.set(item.id, (lines.get(item.id) ?? 0) + units);
    }
    const code = await nextCode(tx, 'T');
    const placeId = await addPlace(tx, { site_id: asked.fromSiteId, code: `FOR-${code}`, kind: 'parcel' });
    const id = await insert(tx, 'transfer', {
      code,
      from_site_id: asked.fromSiteId,
      to_site_id: asked.toSiteId,
      place_id: placeId,
      note: asked.note.trim(),
      expected_on: asked.expectedOn ?? null,
      made_by_id: act.person.id,
      order_id: orderId,
    });
    const made: ApartLine[] = [];
    for (const [itemId, units] of lines) {
      const lineId = await insert(tx, 'transfer_line', { transfer_id: id, line: made.length + 1, item_id: itemId, units });
      made.push({ lineId, itemId, units, gathered: 0 });
    }
    const t = { code, from_site_id: asked.fromSiteId, place_id: placeId };
    await this.apart.want(tx, apartFor(t), made);
    await this.told(tx, act, t, `Asked for: ${code}`, `${lines.size === 1 ? '1 line' : `${lines.size} lines`}, to the other site`);
    return code;
  }

  /** Goods of a bin are set apart for it. */
  async gather(tx: Tx, act: Act, command: GatherCommand): Promise<FloorAnswerDto> {
    const t = await transferOf(tx, command.document);
    mustBeAt(act.person, t.from_site_id);
    if (t.state !== 'requested' && t.state !== 'gathering') throw badState(STATE_SAYS[t.state] ?? '');
    const line = await find(tx, 'transfer_line', { id: command.lineId, transfer_id: t.id }, 'lock');
    if (!line) throw badState('This line is not of the transfer any more');
    const { units } = command;
    const { title, from, movements } = await this.apart.take(
      tx,
      act,
      apartFor(t),
      { lineId: line.id, itemId: line.item_id, units: line.units, gathered: line.gathered_units },
      command,
    );
    await update(tx, 'transfer_line', { id: line.id }, { gathered_units: more(units) });
    await update(tx, 'transfer', { id: t.id }, { state: 'gathering', version: more(1) });
    const gathered: Gathered = { transferId: t.id, lineId: line.id, itemId: line.item_id, units, movements };
    const activityId = await this.activity.record(tx, act, {
      kind: 'transfer',
      glyph: 'half',
      title,
      detail: `from ${from}, for ${t.code}`,
      document: t.code,
      siteId: t.from_site_id,
      how: command.how,
      undo: { ...gathered },
    });
    return { activityId };
  }

  /** What was gathered leaves the site: it is on the road, worth what it was worth. */
  async send(tx: Tx, act: Act, { document, ...said }: Omit<SendOffCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const t = await transferOf(tx, document);
    mustBeAt(act.person, t.from_site_id);
    if (t.state !== 'gathering') throw badState(STATE_SAYS[t.state] ?? '');
    const by = await goesBy(tx, t.id);
    if (by.waits) throw badState(`The label of ${by.waits} has not come yet. Wait for it, or take the parcel out in the office`);
    const [carrier, tracking] = [said.carrier.trim() || by.carrier, said.tracking.trim() || by.tracking];
    await keepStanding(tx, '?', [t.place_id]);
    const there = await rows<{ itemId: number; lotId: number; units: number }>(
      tx,
      `SELECT item_id AS itemId, lot_id AS lotId, units FROM balance WHERE place_id = ? AND stock_condition = 'held' AND units > 0 ORDER BY item_id, lot_id FOR UPDATE`,
      [t.place_id],
    );
    if (there.length === 0) throw badState('Nothing of it is gathered yet');
    const road = await this.ledger.outside(tx, 'in-transit');
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      there.map((g) => ({ ...g, condition: 'held' as const, toCondition: 'good' as const, fromPlaceId: t.place_id, toPlaceId: road })),
      { task: 'transfer', document: t.code },
    );
    for (const [i, g] of there.entries()) {
      const value = await one<{ amount: string }>(tx, `SELECT amount FROM value_entry WHERE movement_id = ? AND credit = 'stock' LIMIT 1`, [
        ids[i] ?? 0,
      ]);
      await insert(tx, 'transfer_goods', {
        transfer_id: t.id,
        item_id: g.itemId,
        lot_id: g.lotId,
        units: g.units,
        movement_id: String(ids[i] ?? 0),
        value: value?.amount ?? '0',
      });
    }
    await this.allocation.settle(tx, changes);
    await this.apart.enough(tx, apartFor(t));
    await update(
      tx,
      'transfer',
      { id: t.id },
      {
        state: 'on-the-road',
        carrier,
        tracking,
        sent_by_id: act.person.id,
        sent_at: NOW,
        version: more(1),
      },
    );
    await this.parcels.left(tx, t);
    const activityId = await this.told(
      tx,
      act,
      t,
      `On the road: ${t.code}`,
      `${there.length === 1 ? '1 lot' : `${there.length} lots`} of goods${carrier ? `, by ${carrier}` : ''}`,
    );
    return { activityId };
  }

  sendByDesk(act: Act, code: string, version: number, body: { carrier: string; tracking: string }): Promise<{ code: string }> {
    return this.commands.run(act, 'transfer.send', { code, version, ...body }, async (tx) => {
      const t = await transferOf(tx, code);
      mustMatch(t.version, version);
      await this.send(tx, act, { document: code, ...body });
      return { code };
    });
  }

  /** Nobody wants it any more: what was gathered goes back, in the books, to the bins that it came from. */
  cancel(act: Act, code: string, version: number): Promise<{ code: string }> {
    return this.commands.run(act, 'transfer.cancel', { code, version }, async (tx) => {
      const t = await transferOf(tx, code);
      mustBeAt(act.person, t.from_site_id);
      mustMatch(t.version, version);
      if (t.state !== 'requested' && t.state !== 'gathering') throw badState(STATE_SAYS[t.state] ?? '');
      await this.parcels.drop(tx, t);
      const wasGathered = await this.apart.allBack(tx, act, apartFor(t));
      await update(tx, 'transfer_line', { transfer_id: t.id }, { gathered_units: 0 });
      await update(tx, 'transfer', { id: t.id }, { state: 'cancelled', version: more(1) });
      await this.told(tx, act, t, `Called off: ${code}`, wasGathered ? 'Put the goods back into their bins' : '');
      return { code };
    });
  }

  /** What was sent and did not come: it never left, or it is lost, and somebody answers for it. */
  settle(act: Act, code: string, version: number, asked: SettleMissingDto): Promise<{ code: string }> {
    return this.commands.run(act, 'transfer.settle', { code, version, ...asked }, async (tx) => {
      const t = await transferOf(tx, code);
      mustBeAt(act.person, t.from_site_id);
      mustMatch(t.version, version);
      const goods = await find(tx, 'transfer_goods', { id: asked.goodsId, transfer_id: t.id }, 'lock');
      const missing = goods ? goods.units - goods.received_units - goods.lost_units : 0;
      if (!goods || missing <= 0) throw badState('Nothing of these goods is missing');
      if (t.state !== 'received') throw badState('The other site has not closed it yet');
      if (!asked.note.trim()) throw badForm({ note: 'Say what happened' });
      const road = await this.ledger.outside(tx, 'in-transit');
      const dock = asked.neverLeft ? await dockOf(tx, t.from_site_id, null) : null;
      if (asked.neverLeft && !dock) throw badState('The site that sent it has no dock. Make one in Shelves first');
      const toPlaceId = dock ? dock.id : await this.ledger.outside(tx, 'scrap');
      if (dock) await keepStanding(tx, '?', [dock.id]);
      const value = dividedBy(times(micro(goods.value), missing), goods.units);
      // Goods that never come back cross no threshold of the house: what was in transit is written off in the journal.
      const { ids, changes } = await this.ledger.post(
        tx,
        act,
        [{ itemId: goods.item_id, lotId: goods.lot_id, condition: 'good', fromPlaceId: road, toPlaceId, units: missing }],
        {
          task: 'transfer',
          document: t.code,
          reason: asked.note.trim().slice(0, 120),
          ...(dock ? { worths: [{ value, parts: [] }] } : {}),
        },
      );
      if (!dock) await this.ledger.writeOff(tx, { itemId: goods.item_id, movementId: ids[0] ?? 0, document: t.code }, 'in transit', value);
      await this.allocation.settle(tx, changes);
      await update(
        tx,
        'transfer_goods',
        { id: goods.id },
        { lost_units: more(missing), owes: asked.owes, settled_note: asked.note.trim() },
      );
      await update(tx, 'transfer', { id: t.id }, { version: more(1) });
      const item = await this.codebook.item(tx, t.from_site_id, goods.item_id);
      await this.told(
        tx,
        act,
        t,
        `${asked.neverLeft ? 'Never left' : 'Lost'}: ${item ? goodsWords(missing, item) : missing}`,
        `${decimalText(value) === '0.000000' ? '' : `${asked.owes} answers for it, `}${asked.note.trim()}`,
      );
      return { code };
    });
  }

  told(tx: Tx, act: Act, t: Pick<TransferRow, 'code' | 'from_site_id'>, title: string, detail: string): Promise<number> {
    return this.activity.record(tx, act, { kind: 'transfer', glyph: 'full', title, detail, document: t.code, siteId: t.from_site_id });
  }

  private async takeBack(tx: Tx, act: Act, gathered: Gathered): Promise<void> {
    const t = await find(tx, 'transfer', { id: gathered.transferId }, 'lock');
    if (t?.state !== 'gathering') throw new Problem(409, 'undo', 'It is on the road by now, or was called off');
    const { lineId, itemId, units } = gathered;
    await this.apart.takeBack(tx, act, apartFor(t), { lineId, itemId, units }, gathered.movements);
    await update(tx, 'transfer_line', { id: lineId }, { gathered_units: more(-units) });
    await update(tx, 'transfer', { id: t.id }, { version: more(1) });
  }
}

interface Gathered {
  transferId: number;
  lineId: number;
  itemId: number;
  units: number;
  movements: number[];
}
