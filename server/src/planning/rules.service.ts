import { readWeek, weekText } from '@vectrum/core/replenish';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { mustBeEverywhere } from '../identity/index.js';
import { type Act, badForm, CommandLog, find, insert, isDuplicate, mustBeAt, mustMatch, notFound, num, one, type Person, type Problem, remove, rows, type Tx, update } from '../platform/index.js'; // prettier-ignore
import { type About, planAnew } from './plan-anew.js';
import type { BuyingRuleDto, KeepBuyingRuleDto, KeepMarkDto, MarkDto } from './rules.dto.js';

const LEAST_SERVICE = 50;
const MOST_WEEKS = 53;

/** How goods are bought, for the company, a class or an item, and weeks that are not as usual. */
@Injectable()
export class RulesService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** The company's first, then those of classes, then those of items; at the person's sites. */
  async list(person: Person): Promise<BuyingRuleDto[]> {
    const found = await rows<BuyingRuleDto & { isFixed: unknown; isDropped: unknown }>(
      this.source,
      `SELECT r.id, r.class AS className, i.sku, i.name AS item, r.site_id AS siteId, t.name AS site, r.service_percent AS servicePercent, r.review_days AS reviewDays, s.code AS supplier, k.sku AS likeSku, r.like_percent AS likePercent, r.room_units AS roomUnits, r.is_fixed AS isFixed, r.is_dropped AS isDropped, r.version
       FROM buying_rule r LEFT JOIN item i ON i.id = r.item_id LEFT JOIN site t ON t.id = r.site_id LEFT JOIN supplier s ON s.id = r.supplier_id LEFT JOIN item k ON k.id = r.like_item_id
       WHERE r.site_id IS NULL OR r.site_id IN (?) ORDER BY r.item_id IS NOT NULL, r.class IS NOT NULL, r.class, i.sku, r.site_id`,
      [[0, ...person.siteIds]],
    );
    return found.map((r) => ({ ...r, isFixed: Number(r.isFixed) === 1, isDropped: Number(r.isDropped) === 1 }));
  }

  keep(act: Act, asked: KeepBuyingRuleDto, known?: { id: number; version: number }): Promise<{ id: number }> {
    return this.commands.run(act, 'buying-rule', { ...asked, ...known }, async (tx) => {
      const of = await this.of(tx, act, asked);
      const service = asked.servicePercent ?? null;
      if (service !== null && (Number(service) < LEAST_SERVICE || Number(service) > 99.9))
        throw badForm({ servicePercent: 'Per cent from 50 to 99.9, such as 97 or 98.5' });
      if (of.item_id === null && (asked.likeSku || asked.supplier || asked.roomUnits || asked.isDropped))
        throw badForm({ sku: 'That is said of one item. Choose the item' });
      const row = {
        ...of,
        service_percent: service,
        review_days: asked.reviewDays ?? null,
        supplier_id: asked.supplier ? await this.idOf(tx, 'supplier', 'code', asked.supplier.toUpperCase(), 'supplier') : null,
        like_item_id: asked.likeSku ? await this.idOf(tx, 'item', 'sku', asked.likeSku, 'likeSku') : null,
        like_percent: asked.likeSku ? (asked.likePercent ?? 100) : null,
        room_units: asked.roomUnits ?? null,
        is_fixed: asked.isFixed ? 1 : 0,
        is_dropped: asked.isDropped ? 1 : 0,
      };
      if (row.like_item_id !== null && row.like_item_id === of.item_id) throw badForm({ likeSku: 'Choose another item than this one' });
      if (
        service === null &&
        row.review_days === null &&
        row.supplier_id === null &&
        row.like_item_id === null &&
        row.room_units === null &&
        !asked.isFixed &&
        !asked.isDropped
      )
        throw badForm({ servicePercent: 'Say one thing at least that is not as usual' });
      const other = await one<{ id: number }>(
        tx,
        'SELECT id FROM buying_rule WHERE item_id <=> ? AND class <=> ? AND site_id <=> ? FOR UPDATE',
        [of.item_id, of.class, of.site_id],
      );
      if (other && other.id !== known?.id) throw ruleThere(asked);
      let id = known?.id ?? 0;
      if (known) {
        const before = await find(tx, 'buying_rule', { id: known.id }, 'lock');
        if (!before) throw notFound('This rule');
        await this.may(tx, act, before.site_id);
        mustMatch(before.version, known.version);
        await planAnew(tx, before);
        await update(tx, 'buying_rule', { id: known.id }, { ...row, version: before.version + 1 });
      } else id = await insert(tx, 'buying_rule', row).catch(thereIsOne(asked));
      await planAnew(tx, of);
      await this.told(tx, act, `Rule for buying kept: ${asked.sku ?? asked.className ?? 'the company'}`);
      return { id };
    });
  }

  drop(act: Act, id: number, version: number): Promise<{ id: number }> {
    return this.commands.run(act, 'buying-rule.drop', { id, version }, async (tx) => {
      const row = await find(tx, 'buying_rule', { id }, 'lock');
      if (!row) throw notFound('This rule');
      await this.may(tx, act, row.site_id);
      mustMatch(row.version, version);
      await remove(tx, 'buying_rule', { id });
      await planAnew(tx, row);
      await this.told(tx, act, 'Rule for buying taken away');
      return { id };
    });
  }

  async marks(person: Person): Promise<MarkDto[]> {
    const found = await rows<Omit<MarkDto, 'from' | 'to'> & { from: number; to: number }>(
      this.source,
      `SELECT m.id, m.name, m.class AS className, i.sku, i.name AS item, m.site_id AS siteId, t.name AS site, m.from_week AS \`from\`, m.to_week AS \`to\`, m.lift_percent AS liftPercent, m.version
       FROM demand_mark m LEFT JOIN item i ON i.id = m.item_id LEFT JOIN site t ON t.id = m.site_id WHERE m.site_id IS NULL OR m.site_id IN (?) ORDER BY m.from_week DESC, m.id DESC`,
      [[0, ...person.siteIds]],
    );
    return found.map((m) => ({ ...m, from: weekText(num(m.from)), to: weekText(num(m.to)) }));
  }

  mark(act: Act, asked: KeepMarkDto): Promise<{ id: number }> {
    return this.commands.run(act, 'demand-mark', asked, async (tx) => {
      const of = await this.of(tx, act, asked);
      const [from, to] = [weekIn(asked.from, 'from'), weekIn(asked.to, 'to')];
      if (to < from) throw badForm({ to: 'It ends before it begins' });
      if (to - from >= MOST_WEEKS) throw badForm({ to: 'Mark a year at most' });
      const id = await insert(tx, 'demand_mark', {
        ...of,
        name: asked.name.trim(),
        from_week: from,
        to_week: to,
        lift_percent: asked.liftPercent ?? null,
      });
      await planAnew(tx, of);
      await this.told(tx, act, `Weeks marked: ${asked.name}`, `${asked.from} to ${asked.to}`);
      return { id };
    });
  }

  unmark(act: Act, id: number, version: number): Promise<{ id: number }> {
    return this.commands.run(act, 'demand-mark.drop', { id, version }, async (tx) => {
      const row = await find(tx, 'demand_mark', { id }, 'lock');
      if (!row) throw notFound('This mark');
      await this.may(tx, act, row.site_id);
      mustMatch(row.version, version);
      await remove(tx, 'demand_mark', { id });
      await planAnew(tx, row);
      await this.told(tx, act, `Weeks are usual again: ${row.name}`);
      return { id };
    });
  }

  private async of(tx: Tx, act: Act, asked: { sku?: string; className?: string; siteId?: number | null }): Promise<About> {
    const siteId = asked.siteId ?? null;
    await this.may(tx, act, siteId);
    if (asked.sku) return { item_id: await this.idOf(tx, 'item', 'sku', asked.sku, 'sku'), class: null, site_id: siteId };
    const className = asked.className?.trim();
    return { item_id: null, class: className ? className : null, site_id: siteId };
  }

  /** What holds at all sites is said by those who are at all of them. */
  private async may(tx: Tx, act: Act, siteId: number | null): Promise<void> {
    if (siteId === null) await mustBeEverywhere(tx, act.person);
    else mustBeAt(act.person, siteId);
  }

  private async idOf(tx: Tx, table: 'item' | 'supplier', by: 'sku' | 'code', value: string, field: string): Promise<number> {
    const row = await one<{ id: number }>(tx, `SELECT id FROM \`${table}\` WHERE ${by} = ?`, [value]);
    if (!row) throw badForm({ [field]: `There is no ${table} ${value}` });
    return num(row.id);
  }

  private async told(tx: Tx, act: Act, title: string, detail = ''): Promise<void> {
    await this.activity.record(tx, act, { kind: 'buying', glyph: 'full', title, detail });
  }
}

const ruleThere = (asked: KeepBuyingRuleDto): Problem =>
  badForm({ [asked.sku ? 'sku' : 'className']: 'There is a rule for it already. Change that one' });

/** Somebody else has written the same rule at the same moment. */
const thereIsOne = (asked: KeepBuyingRuleDto) => (thrown: unknown) => {
  throw isDuplicate(thrown) ? ruleThere(asked) : thrown;
};

function weekIn(text: string, field: string): number {
  try {
    return readWeek(text);
  } catch {
    throw badForm({ [field]: `There is no week ${text}` });
  }
}
