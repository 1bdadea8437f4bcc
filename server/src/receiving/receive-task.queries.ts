import { Injectable } from '@nestjs/common';
import type { AnnouncedPallet, OtherDelivery, ReceiveLine, ReceiveTask } from '@vectrum/core/scan';
import { InspectionDue } from '../inspection/index.js';
import { badState, marks, num, type Person, rows, type Tx } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { dockOf, firstPlace } from '../sites/index.js';
import { comingWith, type Delivery } from './delivery.js';

interface PalletRow {
  sscc: string;
  lineId: number | null;
  itemId: number;
  units: number;
  lot: string | null;
  expires: string | null;
  received: number | string;
}

/** What a command is about: its items, and the pallet that it names, if any. */
interface Only {
  items: readonly number[];
  pallet: string | null;
}

/** The task as the server builds it, with nothing left out that a phone may go without. */
export type DockTask = ReceiveTask &
  Required<Pick<ReceiveTask, 'nextBooks'>> & { others: OtherDelivery[]; whole: { may: boolean; sample: number } };

/** Builds what a phone needs to receive a delivery; the server checks by the same. */
@Injectable()
export class ReceiveTaskQueries {
  constructor(
    private readonly settings: SettingsService,
    private readonly inspections: InspectionDue,
  ) {}

  /** The task of a delivery; for a command only as much of it as is about its goods. */
  async task(tx: Pick<Tx, 'query'>, person: Person, delivery: Delivery, only?: Only): Promise<DockTask> {
    const dock = await dockOf(tx, delivery.siteId, delivery.doorId);
    if (!dock) throw badState('This site has no dock. Make one in Shelves first');
    const lines = await this.lines(tx, delivery, only?.items);
    const pallets = delivery.arrival && (!only || only.pallet !== null) ? await this.pallets(tx, delivery.arrival.id, only?.pallet) : [];
    const all = [...lines.map((l) => l.itemId), ...pallets.flatMap((p) => p.contents.map((c) => c.itemId))];
    const looked = await this.inspections.of(tx, comingWith(delivery), only?.items ?? all);
    return {
      document: delivery.code,
      supplier: delivery.supplier,
      overPercent: await this.settings.get(tx, 'overPercent'),
      fillRemaining: await this.settings.get(tx, 'fillRemaining'),
      nextBooks: await this.settings.get(tx, 'nextScanBooks'),
      dock,
      apart: (await firstPlace(tx, delivery.siteId, 'quarantine')) ?? null,
      inspection: (await firstPlace(tx, delivery.siteId, 'inspection')) ?? null,
      inspect: Object.fromEntries([...looked].map(([itemId, { why }]) => [itemId, why])),
      mayTake: person.rights.has('take-in'),
      lines,
      pallets,
      serials: await this.serials(tx, only?.items ?? lines.map((l) => l.itemId)),
      others: only ? [] : await this.others(tx, delivery),
      whole: { may: person.rights.has('take-whole'), sample: await this.settings.get(tx, 'wholeSample') },
    };
  }

  /** An announced pallet of a delivery. */
  async pallet(tx: Pick<Tx, 'query'>, delivery: Delivery, sscc: string): Promise<AnnouncedPallet | undefined> {
    return delivery.arrival ? (await this.pallets(tx, delivery.arrival.id, sscc))[0] : undefined;
  }

  private async lines(tx: Pick<Tx, 'query'>, delivery: Delivery, items?: readonly number[]): Promise<ReceiveLine[]> {
    const found = await rows<ReceiveLine>(
      tx,
      `SELECT l.id AS lineId, o.code AS \`order\`, l.line, l.item_id AS itemId, l.pack_unit_id AS packId, l.packs * l.factor - l.closed_units AS ordered, l.received_units AS received
       FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.id IN (${marks(delivery.orders)})${items ? ` AND l.item_id IN (${marks(items)})` : ''} ORDER BY o.expected_on, o.id, l.line`,
      [...delivery.orders.map((o) => o.id), ...(items ?? [])],
    );
    return found.map((l) => ({ ...l, ordered: num(l.ordered), received: num(l.received) }));
  }

  private async pallets(tx: Pick<Tx, 'query'>, arrivalId: number, sscc?: string | null): Promise<AnnouncedPallet[]> {
    const found = await rows<PalletRow>(
      tx,
      `SELECT g.sscc, g.order_line_id AS lineId, g.item_id AS itemId, g.units, g.lot_code AS lot, g.expires_on AS expires, p.sscc IS NOT NULL AS received
       FROM announced_goods g LEFT JOIN received_pallet p ON p.arrival_id = g.arrival_id AND p.sscc = g.sscc WHERE g.arrival_id = ? AND g.sscc IS NOT NULL${sscc ? ' AND g.sscc = ?' : ''} ORDER BY g.id`,
      sscc ? [arrivalId, sscc] : [arrivalId],
    );
    const pallets = new Map<string, AnnouncedPallet>();
    for (const { sscc, received, ...goods } of found) {
      const pallet = pallets.get(sscc) ?? { sscc, contents: [], received: num(received) === 1 };
      pallets.set(sscc, { ...pallet, contents: [...pallet.contents, goods] });
    }
    return [...pallets.values()];
  }

  /** The other deliveries that are due at the site, with every code that leads to them. */
  private async others(tx: Pick<Tx, 'query'>, delivery: Delivery): Promise<OtherDelivery[]> {
    const found = await rows<{ code: string; supplier: string; also: string | null }>(
      tx,
      `SELECT a.code, COALESCE(s.name, 'Without an order') AS supplier, CONCAT_WS(',',
         (SELECT GROUP_CONCAT(o.code) FROM arrival_order x JOIN purchase_order o ON o.id = x.order_id WHERE x.arrival_id = a.id AND o.state IN ('placed','part-received')),
         (SELECT GROUP_CONCAT(DISTINCT g.sscc) FROM announced_goods g WHERE g.arrival_id = a.id)) AS also
       FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE a.state <> 'closed' AND a.site_id = ? AND a.id <> ?
       UNION ALL
       SELECT o.code, s.name, NULL FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
       WHERE o.state IN ('placed','part-received') AND o.site_id = ? AND o.id NOT IN (${marks([0, ...delivery.orders])})
         AND NOT EXISTS (SELECT 1 FROM arrival_order x JOIN arrival a ON a.id = x.arrival_id WHERE x.order_id = o.id AND a.state <> 'closed')`,
      [delivery.siteId, delivery.arrival?.id ?? 0, delivery.siteId, 0, ...delivery.orders.map((o) => o.id)],
    );
    return found.map(({ code, supplier, also }) => ({ code, supplier, also: also ? also.split(',') : [] }));
  }

  /** Serial numbers in the house of the items that are due. */
  private async serials(tx: Pick<Tx, 'query'>, itemIds: readonly number[]): Promise<string[]> {
    const items = [...new Set(itemIds)];
    const found = await rows<{ itemId: number; code: string }>(
      tx,
      `SELECT l.item_id AS itemId, l.code FROM lot l JOIN item i ON i.id = l.item_id AND i.tracking = 'serial'
       WHERE l.item_id IN (${marks(items)}) AND EXISTS (SELECT 1 FROM balance b WHERE b.item_id = l.item_id AND b.lot_id = l.id AND b.bounded = 1 AND b.units > 0)`,
      items,
    );
    return found.map((s) => `${s.itemId}/${s.code}`);
  }
}
