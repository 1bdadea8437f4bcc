import { Injectable } from '@nestjs/common';
import { judge, type Tolerance } from '@vectrum/core/counting';
import { micro, times } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  mustMatch,
  notFound,
  num,
  one,
  rows,
  remove,
  type Tx,
  update,
} from '../platform/index.js';
import type { CountRuleDto, KeepCountRuleDto, TriedRuleDto } from './count-rules.dto.js';

/** The newest lines on which a rule is tried. */
const MOST_TRIED = 5_000;

const RULE = `r.id, r.class AS className, i.sku, i.name AS item, r.interval_days AS intervalDays, r.units, r.value, r.units_percent AS unitsPercent, r.value_percent AS valuePercent, r.version`;

/** How often goods are counted and how far a count may be off: for the company, a class or an item. */
@Injectable()
export class CountRules {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** The company's first, then those of classes, then those of items. */
  list(): Promise<CountRuleDto[]> {
    return rows<CountRuleDto>(
      this.source,
      `SELECT ${RULE} FROM count_rule r LEFT JOIN item i ON i.id = r.item_id ORDER BY r.item_id IS NOT NULL, r.class IS NOT NULL, r.class, i.sku`,
    );
  }

  keep(act: Act, asked: KeepCountRuleDto, known?: { id: number; version: number }): Promise<{ id: number }> {
    return this.commands.run(act, 'count-rule', { ...asked, ...known }, async (tx) => {
      const of = await this.levelOf(tx, asked);
      const row = {
        ...of,
        interval_days: asked.intervalDays ?? null,
        units: asked.units ?? null,
        value: asked.value ?? null,
        units_percent: asked.unitsPercent ?? null,
        value_percent: asked.valuePercent ?? null,
      };
      if (Object.values(row).every((v, i) => i < 2 || v === null))
        throw badForm({ intervalDays: 'Say how often, or how far off, at least' });
      const other = await one<{ id: number }>(tx, 'SELECT id FROM count_rule WHERE item_id <=> ? AND class <=> ? FOR UPDATE', [
        of.item_id,
        of.class,
      ]);
      if (other && other.id !== known?.id)
        throw badForm({ [asked.sku ? 'sku' : 'className']: 'There is a rule for it already. Change that one' });
      let id = known?.id ?? 0;
      if (known) {
        const before = await find(tx, 'count_rule', { id: known.id }, 'lock');
        if (!before) throw notFound('This rule');
        mustMatch(before.version, known.version);
        await update(tx, 'count_rule', { id: known.id }, { ...row, version: before.version + 1 });
      } else id = await insert(tx, 'count_rule', row);
      await this.told(tx, act, `Rule for counts kept: ${asked.sku ?? asked.className ?? 'the company'}`);
      return { id };
    });
  }

  drop(act: Act, id: number, version: number): Promise<{ id: number }> {
    return this.commands.run(act, 'count-rule.drop', { id, version }, async (tx) => {
      const row = await find(tx, 'count_rule', { id }, 'lock');
      if (!row) throw notFound('This rule');
      mustMatch(row.version, version);
      await remove(tx, 'count_rule', { id });
      await this.told(tx, act, 'Rule for counts taken away');
      return { id };
    });
  }

  /** What a rule would have said of the newest lines that it is about, before it is kept. */
  async tried(asked: KeepCountRuleDto): Promise<TriedRuleDto> {
    const of = await this.levelOf(this.source, asked);
    const found = await rows<{ counted: number; expected: number; cost: string | null; within: number; wholeValue: string | null }>(
      this.source,
      `SELECT l.counted_units AS counted, l.expected_units AS expected, COALESCE(l.unit_cost, i.cost) AS cost, l.within_limits AS within, v.value AS wholeValue
       FROM count_line l JOIN item i ON i.id = l.item_id JOIN (SELECT count_id, SUM(expected_units * COALESCE(unit_cost, 0)) AS value FROM count_line WHERE state = 'accepted' GROUP BY count_id) v ON v.count_id = l.count_id
       WHERE l.state = 'accepted' AND l.expected_units IS NOT NULL ${of.item_id === null ? '' : 'AND l.item_id = ?'} ${of.class === null ? '' : 'AND i.class = ?'} ORDER BY l.id DESC LIMIT ${MOST_TRIED}`,
      [...(of.item_id === null ? [] : [of.item_id]), ...(of.class === null ? [] : [of.class])],
    );
    const limits: Tolerance = {
      units: asked.units ?? null,
      value: asked.value ?? null,
      unitsPercent: asked.unitsPercent == null ? null : Number(asked.unitsPercent),
      valuePercent: asked.valuePercent == null ? null : Number(asked.valuePercent),
    };
    const isNow = found.map((f) => {
      const whole = f.wholeValue === null ? times(micro(f.cost ?? '0'), f.expected) : micro(Number(f.wholeValue).toFixed(6));
      const levels = { item: null, class: null, company: limits };
      return judge({ counted: f.counted, expected: f.expected, unitCost: f.cost, packs: [], className: '' }, levels, whole).isWithin;
    });
    const was = found.map((f) => f.within === 1);
    const both = (then: boolean, now: boolean) => was.filter((w, i) => w === then && isNow[i] === now).length;
    return {
      lines: found.length,
      withinThen: was.filter(Boolean).length,
      withinNow: isNow.filter(Boolean).length,
      fewer: both(false, true),
      more: both(true, false),
    };
  }

  private async levelOf(tx: Pick<Tx, 'query'>, asked: KeepCountRuleDto): Promise<{ item_id: number | null; class: string | null }> {
    if (asked.sku) {
      const item = await one<{ id: number }>(tx, 'SELECT id FROM item WHERE sku = ?', [asked.sku]);
      if (!item) throw badForm({ sku: `There is no item ${asked.sku}` });
      return { item_id: num(item.id), class: null };
    }
    const className = asked.className?.trim();
    return { item_id: null, class: className ? className : null };
  }

  private async told(tx: Tx, act: Act, title: string): Promise<void> {
    await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title });
  }
}
