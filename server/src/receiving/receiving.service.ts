import { Injectable, type OnModuleInit } from '@nestjs/common';
import { type Bundle, checkReceive, type Codebook, type PlaceFacts, type ReceiveTask } from '@vectrum/core/scan';
import { goodsWords } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/activity.service.js';
import { appliedTo } from '../activity/applied.js';
import { UndoService } from '../activity/undo.service.js';
import { AllocationService } from '../allocation/allocation.service.js';
import { SettingsService } from '../company/settings.service.js';
import { CodebookQueries } from '../catalogue/codebook.queries.js';
import { type Act, mustBeAt, type Person } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { inSnapshot, num, one, rows, type Tx } from '../platform/database/tx.js';
import { badState, notFound, Problem } from '../platform/problem.js';
import { refused } from '../platform/refused.js';
import { LedgerService } from '../stock/ledger.service.js';
import type { DueOrderDto, PostedDto, ReceiveDto } from './receiving.dto.js';

const RECEIVABLE = new Set(['dock', 'inspection', 'pick-face', 'reserve']);

interface OrderRow {
  id: number;
  code: string;
  site_id: number;
  state: string;
  supplier: string;
}

/** Books goods in from purchase orders, line by line, straight to the ledger. */
@Injectable()
export class ReceivingService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly codebook: CodebookQueries,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
    private readonly settings: SettingsService,
  ) {}

  onModuleInit(): void {
    this.undo.register('receive', 'receive', (tx, act, payload) => this.takeBack(tx, act, payload as unknown as Undo));
  }

  /** What is due or part received, soonest first. */
  async due(siteIds: readonly number[]): Promise<DueOrderDto[]> {
    const found = await rows<Omit<DueOrderDto, 'lines' | 'linesIn'> & { lines: string; linesIn: string }>(
      this.source,
      `SELECT o.code, s.name AS supplier, o.expected_on AS expectedOn, o.state, COUNT(l.id) AS \`lines\`, SUM(l.received_units >= l.packs * l.factor) AS linesIn
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN purchase_order_line l ON l.order_id = o.id
       WHERE o.state IN ('placed','part-received') AND o.site_id IN (?) GROUP BY o.id ORDER BY o.state DESC, o.expected_on, o.id LIMIT 60`,
      [[0, ...siteIds]],
    );
    return found.map((o) => ({ ...o, lines: num(o.lines), linesIn: num(o.linesIn) }));
  }

  /** The task bundle of one order, for the phone. */
  task(person: Person, code: string): Promise<ReceiveTask & Bundle> {
    return inSnapshot(this.source, async (tx) => {
      const order = await this.order(tx, code, false);
      mustBeAt(person, order.site_id);
      return { ...(await this.taskOf(tx, order)), applied: await appliedTo(tx, [code]) };
    });
  }

  receive(act: Act, code: string, input: ReceiveDto): Promise<PostedDto> {
    return this.commands.run(act, 'receive', { code, input }, async (tx) => {
      const order = await this.order(tx, code, true);
      mustBeAt(act.person, order.site_id);
      const task = await this.taskOf(tx, order);
      const book = await this.codebook.book(tx, order.site_id, [input.itemId, ...task.lines.map((l) => l.itemId)], [input.toPlaceId]);
      const line = task.lines.find((l) => l.line === input.line);
      const command = {
        kind: 'receive' as const,
        id: act.key,
        order: code,
        ...input,
        lot: input.lot ?? null,
        expires: input.expires ?? null,
      };
      const refusal = checkReceive(task, book, command, line?.received ?? 0);
      if (refusal) throw refused(refusal);
      const to = this.placeFor(book, input.toPlaceId, order.site_id);
      const lotId = await this.lotFor(tx, input, book);
      const from = await this.ledger.outside(tx, 'supplier');
      const { ids, changes } = await this.ledger.post(
        tx,
        act,
        [
          {
            itemId: input.itemId,
            lotId,
            condition: 'good',
            fromPlaceId: from,
            toPlaceId: to.id,
            units: input.units,
          },
        ],
        { task: 'receive', document: code, how: input.how },
      );
      await this.book(tx, order.id, input.line, input.units);
      await this.allocation.settle(tx, changes);
      const item = book.items[input.itemId];
      const activityId = await this.activity.record(tx, act, {
        kind: 'receive',
        glyph: 'full',
        title: item ? goodsWords(input.units, item) : code,
        detail: `at ${to.code}, ${code}`,
        document: code,
        siteId: order.site_id,
        how: input.how,
        undo: {
          movements: ids,
          orderId: order.id,
          line: input.line,
          units: input.units,
          document: code,
        } satisfies Undo,
      });
      return { activityId };
    });
  }

  private async order(tx: Pick<Tx, 'query'>, code: string, lock: boolean): Promise<OrderRow> {
    const order = await one<OrderRow>(
      tx,
      `SELECT o.id, o.code, o.site_id, o.state, s.name AS supplier FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE o.code = ? ${lock ? 'FOR UPDATE' : ''}`,
      [code],
    );
    if (!order || order.state === 'draft') throw notFound(`Purchase order ${code}`);
    if (order.state === 'cancelled' || order.state === 'closed')
      throw badState(`${code} is ${order.state}. Ring the office before taking these goods in`);
    return order;
  }

  private async taskOf(tx: Pick<Tx, 'query'>, order: OrderRow): Promise<ReceiveTask> {
    const dock = await one<PlaceFacts>(
      tx,
      `SELECT id, code, kind, site_id AS siteId FROM place WHERE site_id = ? AND kind = 'dock' ORDER BY walk_order, id LIMIT 1`,
      [order.site_id],
    );
    if (!dock) throw badState('This site has no dock. Make one in Shelves first');
    const lines = await rows<ReceiveTask['lines'][number]>(
      tx,
      'SELECT line, item_id AS itemId, pack_unit_id AS packId, packs * factor AS ordered, received_units AS received FROM purchase_order_line WHERE order_id = ? ORDER BY line',
      [order.id],
    );
    return {
      order: order.code,
      supplier: order.supplier,
      overPercent: await this.settings.get(tx, 'overPercent'),
      fillRemaining: await this.settings.get(tx, 'fillRemaining'),
      dock,
      lines: lines.map((l) => ({ ...l, ordered: num(l.ordered), received: num(l.received) })),
    };
  }

  private placeFor(book: Codebook, placeId: number, siteId: number): PlaceFacts {
    const place = Object.values(book.places).find((p) => p.id === placeId);
    if (!place || place.siteId !== siteId)
      throw new Problem(409, 'refused', 'This place is not at this site. Scan a bin or the dock here', {
        band: 'not-this',
        title: place?.code ?? 'Unknown place',
      });
    if (!RECEIVABLE.has(place.kind))
      throw new Problem(409, 'refused', 'Goods cannot be booked in here. Scan a bin or the dock', {
        band: 'not-this',
        title: place.code,
      });
    return place;
  }

  private async lotFor(tx: Tx, input: ReceiveDto, book: Codebook): Promise<number> {
    const tracking = book.items[input.itemId]?.tracking ?? 'none';
    if (tracking === 'none' || !input.lot) return 0;
    const expires = tracking === 'lot-expiry' ? (input.expires ?? null) : null;
    await tx.query(
      'INSERT INTO lot (item_id, code, expires_on, first_received_on) VALUES (?, ?, ?, UTC_DATE()) ON DUPLICATE KEY UPDATE id = id',
      [input.itemId, input.lot, expires],
    );
    const lot = await one<{ id: number; expires_on: string | null }>(tx, 'SELECT id, expires_on FROM lot WHERE item_id = ? AND code = ?', [
      input.itemId,
      input.lot,
    ]);
    if (lot?.expires_on && expires && lot.expires_on !== expires) {
      throw new Problem(409, 'refused', `Lot ${input.lot} is known with the date ${lot.expires_on}. Check the label`, {
        band: 'not-this',
        title: 'Date differs',
      });
    }
    return lot?.id ?? 0;
  }

  /** Counts units onto a line (or off it) and lets the order's state follow. */
  private async book(tx: Tx, orderId: number, line: number, units: number): Promise<void> {
    await tx.query('UPDATE purchase_order_line SET received_units = received_units + ? WHERE order_id = ? AND line = ?', [
      units,
      orderId,
      line,
    ]);
    const sums = await one<{ open: string; come: string }>(
      tx,
      'SELECT SUM(received_units < packs * factor) AS open, SUM(received_units) AS come FROM purchase_order_line WHERE order_id = ?',
      [orderId],
    );
    const state = num(sums?.open) === 0 ? 'received' : num(sums?.come) > 0 ? 'part-received' : 'placed';
    await tx.query(
      `UPDATE purchase_order SET state = ?, first_received_at = IF(? = 'placed', NULL, COALESCE(first_received_at, UTC_TIMESTAMP(3))), version = version + 1 WHERE id = ?`,
      [state, state, orderId],
    );
  }

  private async takeBack(tx: Tx, act: Act, undo: Undo): Promise<void> {
    await one(tx, 'SELECT id FROM purchase_order WHERE id = ? FOR UPDATE', [undo.orderId]);
    const changes = await this.ledger.reverse(tx, act, undo.movements, undo.document);
    await this.book(tx, undo.orderId, undo.line, -undo.units);
    await this.allocation.settle(tx, changes);
  }
}

interface Undo extends Record<string, unknown> {
  movements: number[];
  orderId: number;
  line: number;
  units: number;
  document: string;
}
