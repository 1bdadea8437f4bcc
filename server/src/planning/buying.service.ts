import { dueDay } from '@vectrum/core/buying';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  addDays,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  mustBeAt,
  num,
  one,
  siteDay,
  type Tx,
  update,
} from '../platform/index.js';
import { PurchasingService } from '../purchasing/index.js';
import { planSoon } from './demand-reading.service.js';
import { Planner } from './planner.js';
import type { BringBackDto, OrdersMadeDto, PutOffProposalDto, TakenLineDto, TakeProposalsDto } from './planning.dto.js';
import { ProposalsQueries } from './proposals.queries.js';
import { type Source, SourcesQueries } from './sources.queries.js';

/** Whoever says that there is enough is believed for so long. */
const ENOUGH_DAYS = 28;

type Chosen = TakenLineDto & { source: Source; itemId: number };

/** What buyers make of the proposals: drafts of orders, put off, dropped. */
@Injectable()
export class BuyingService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly purchasing: PurchasingService,
    private readonly proposals: ProposalsQueries,
    private readonly sources: SourcesQueries,
    private readonly planner: Planner,
  ) {}

  /** One draft for each supplier, with the supplier's pack, price and lower prices; what was proposed is kept beside what was taken. */
  async take(act: Act, { siteId, asOf, lines }: TakeProposalsDto): Promise<OrdersMadeDto> {
    mustBeAt(act.person, siteId);
    const { today } = await siteDay(this.source, siteId);
    const { baskets } = await this.proposals.at(siteId, today);
    const proposed = new Map(baskets.flatMap((b) => b.lines).map((l) => [l.planned.sku, l]));
    return this.commands.run(act, 'buying.take', { siteId, asOf, lines }, async (tx) => {
      const bySupplier = new Map<string, Chosen[]>();
      for (const [i, line] of lines.entries()) {
        if (lines.findIndex((l) => l.sku === line.sku && l.supplier === line.supplier) !== i)
          throw badForm({ [`lines.${i}.sku`]: `${line.sku} stands here twice` });
        const chosen = await this.chosen(tx, line, i);
        bySupplier.set(line.supplier.toUpperCase(), [...(bySupplier.get(line.supplier.toUpperCase()) ?? []), chosen]);
      }
      await this.notTaken(tx, siteId, asOf, [...bySupplier.values()].flat());
      const orders: string[] = [];
      for (const [supplier, of] of bySupplier) {
        const code = await this.draft(tx, act, siteId, today, supplier, of);
        orders.push(code);
        for (const c of of) {
          const was = proposed.get(c.sku);
          const horizon = Math.round((was?.planned.leadDays ?? 0) + (was?.planned.reviewDays ?? 0));
          await insert(tx, 'buying_choice', {
            site_id: siteId,
            item_id: c.itemId,
            chosen_on: today,
            says: 'taken',
            proposed_units: was?.units ?? 0,
            taken_units: c.packs * c.source.factor,
            expected_units: ((was?.planned.weekMean ?? 0) * horizon) / 7,
            horizon_days: horizon,
            document: code,
            person_id: act.person.id,
          });
        }
      }
      return { orders };
    });
  }

  /** Of two who take one proposal the second is told: goods would be ordered twice. */
  private async notTaken(tx: Tx, siteId: number, asOf: number, chosen: readonly Chosen[]): Promise<void> {
    const items = chosen.map((c) => c.itemId);
    await tx.query('SELECT id FROM item_plan WHERE site_id = ? AND item_id IN (?) ORDER BY id FOR UPDATE', [siteId, [0, ...items]]);
    const other = await one<{ sku: string; document: string; by: string }>(
      tx,
      `SELECT i.sku, c.document, p.name AS \`by\` FROM buying_choice c JOIN item i ON i.id = c.item_id JOIN person p ON p.id = c.person_id WHERE c.site_id = ? AND c.id > ? AND c.says = 'taken' AND c.item_id IN (?) ORDER BY c.id LIMIT 1 FOR UPDATE`,
      [siteId, asOf, [0, ...items]],
    );
    if (other)
      throw badState(`${other.by} has drafted ${other.document} with ${other.sku} meanwhile. Look again at what is still to be ordered`);
  }

  private async chosen(tx: Tx, line: TakenLineDto, i: number): Promise<Chosen> {
    const item = await find(tx, 'item', { sku: line.sku });
    if (!item) throw badForm({ [`lines.${i}.sku`]: `There is no item ${line.sku}` });
    const supplier = await find(tx, 'supplier', { code: line.supplier.toUpperCase() });
    const source = (await this.sources.of([item.id])).get(item.id)?.find((s) => s.supplierId === supplier?.id);
    if (!source)
      throw badForm({ [`lines.${i}.supplier`]: `${line.supplier} has no price for ${line.sku}. Write it at the supplier first` });
    return { ...line, source, itemId: item.id };
  }

  private async draft(tx: Tx, act: Act, siteId: number, today: string, supplier: string, of: readonly Chosen[]): Promise<string> {
    const row = await one<{ lead: number; works: string }>(
      tx,
      'SELECT lead_days AS lead, working_days AS works FROM supplier WHERE code = ?',
      [supplier],
    );
    return this.purchasing.draft(tx, act, {
      supplier,
      siteId,
      expectedOn: dueDay(today, num(row?.lead), row?.works ?? 'YYYYYYY'),
      note: '',
      lines: of.map(({ sku, packs, source }) => ({ sku, packs, factor: source.factor, price: priceAt(source, packs) })),
    });
  }

  /** Puts a proposal off until a day, for a month, or for good. */
  putOff(act: Act, asked: PutOffProposalDto): Promise<{ sku: string }> {
    mustBeAt(act.person, asked.siteId);
    return this.commands.run(act, 'buying.put-off', asked, async (tx) => {
      const item = await this.item(tx, asked.sku);
      const { today } = await siteDay(tx, asked.siteId);
      const until = asked.says === 'later' ? (asked.until ?? '') : asked.says === 'enough' ? addDays(today, ENOUGH_DAYS) : null;
      if (until !== null && until <= today) throw badForm({ until: 'Choose a day to come' });
      if (asked.says === 'dropped') {
        const rule = await one<{ id: number }>(tx, 'SELECT id FROM buying_rule WHERE item_id = ? AND site_id = ? FOR UPDATE', [
          item.id,
          asked.siteId,
        ]);
        if (rule) await tx.query('UPDATE buying_rule SET is_dropped = 1, version = version + 1 WHERE id = ?', [rule.id]);
        else await insert(tx, 'buying_rule', { item_id: item.id, site_id: asked.siteId, is_dropped: 1 });
      }
      await insert(tx, 'buying_choice', {
        site_id: asked.siteId,
        item_id: item.id,
        chosen_on: today,
        says: asked.says,
        proposed_units: 0,
        until_on: until,
        why: asked.why,
        person_id: act.person.id,
      });
      const says = until === null ? 'is bought no more' : `is not proposed until ${until}`;
      await this.activity.record(tx, act, {
        kind: 'buying',
        glyph: 'held',
        title: `${item.name} ${says}`,
        detail: asked.why,
        siteId: asked.siteId,
      });
      return { sku: item.sku };
    });
  }

  /** Proposes again what was put off. */
  bringBack(act: Act, asked: BringBackDto): Promise<{ sku: string }> {
    mustBeAt(act.person, asked.siteId);
    return this.commands.run(act, 'buying.bring-back', asked, async (tx) => {
      const item = await this.item(tx, asked.sku);
      await update(tx, 'buying_choice', { site_id: asked.siteId, item_id: item.id, is_over: 0 }, { is_over: 1 });
      await tx.query(
        'UPDATE buying_rule SET is_dropped = 0, version = version + 1 WHERE item_id = ? AND is_dropped = 1 AND (site_id IS NULL OR site_id = ?)',
        [item.id, asked.siteId],
      );
      await planSoon(tx, asked.siteId, [item.id]);
      await this.activity.record(tx, act, { kind: 'buying', glyph: 'go', title: `${item.name} is proposed again`, siteId: asked.siteId });
      return { sku: item.sku };
    });
  }

  /** Reads all that was asked for and plans a site anew, without waiting for the morning. */
  async again(act: Act, siteId: number): Promise<{ planning: number }> {
    mustBeAt(act.person, siteId);
    await this.planner.look([siteId], true);
    const due = await one<{ n: string }>(this.source, 'SELECT COUNT(*) AS n FROM item_plan WHERE site_id = ? AND due_at IS NOT NULL', [
      siteId,
    ]);
    return { planning: num(due?.n) };
  }

  private async item(tx: Tx, sku: string): Promise<{ id: number; sku: string; name: string }> {
    const item = await find(tx, 'item', { sku });
    if (!item) throw badForm({ sku: `There is no item ${sku}` });
    return item;
  }
}

/** The price of a pack where so many are ordered, as decimal text. */
function priceAt({ price, breaks }: Source, packs: number): string {
  const low = breaks.reduce((least, b) => (packs >= b.from ? Math.min(least, b.price) : least), Number(price));
  return low === Number(price) ? price : low.toFixed(6).replace(/\.?0+$/, '');
}
