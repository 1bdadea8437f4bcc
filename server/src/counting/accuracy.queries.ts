import { Injectable } from '@nestjs/common';
import { accuracyOf } from '@vectrum/core/counting';
import { DataSource } from 'typeorm';
import { num, type Person, rows } from '../platform/index.js';
import type { AccuracyDto, AccuracyRowDto } from './counts.dto.js';
import { AREA, AREA_JOINS } from './drawing.js';

export type AccuracyBy = 'zone' | 'class' | 'person';
const KEY: Readonly<Record<AccuracyBy | 'week', string>> = {
  zone: AREA,
  class: `COALESCE(NULLIF(i.class, ''), 'no class')`,
  person: `COALESCE(w.name, 'nobody')`,
  week: `DATE_FORMAT(l.looked_at - INTERVAL WEEKDAY(l.looked_at) DAY, '%Y-%m-%d')`,
};

/** How right counts have found the books, by where, what, who and when. */
@Injectable()
export class AccuracyQueries {
  constructor(private readonly source: DataSource) {}

  async read(person: Person, siteIds: readonly number[], by: AccuracyBy, from: string, to: string): Promise<AccuracyDto> {
    const of = async (key: AccuracyBy | 'week'): Promise<AccuracyRowDto[]> => {
      const found = await rows<{ key: string; lines: string; within: string; more: string | null; less: string | null }>(
        this.source,
        `SELECT ${KEY[key]} AS \`key\`, COUNT(*) AS \`lines\`, SUM(l.within_limits) AS within,
           CAST(SUM(GREATEST(0, CAST(l.counted_units AS SIGNED) - l.expected_units) * COALESCE(l.unit_cost, 0)) AS DECIMAL(18,6)) AS more,
           CAST(SUM(LEAST(0, CAST(l.counted_units AS SIGNED) - l.expected_units) * COALESCE(l.unit_cost, 0)) AS DECIMAL(18,6)) AS less
         FROM count_line l JOIN stock_count c ON c.id = l.count_id JOIN place p ON p.id = l.place_id ${AREA_JOINS} JOIN item i ON i.id = l.item_id LEFT JOIN person w ON w.id = l.person_id
         WHERE c.site_id IN (?) AND l.state = 'accepted' ${from ? 'AND l.looked_at >= ?' : ''} ${to ? 'AND l.looked_at < ? + INTERVAL 1 DAY' : ''} GROUP BY \`key\` ORDER BY ${key === 'week' ? '`key`' : 'COUNT(*) DESC, `key`'}`,
        [[0, ...siteIds], ...(from ? [from] : []), ...(to ? [to] : [])],
      );
      return found.map((f) => ({
        key: f.key,
        lines: num(f.lines),
        within: num(f.within),
        accuracy: accuracyOf(num(f.within), num(f.lines)),
        more: person.seesCosts ? f.more : null,
        less: person.seesCosts ? f.less : null,
      }));
    };
    return { rows: await of(by), weeks: await of('week') };
  }
}
