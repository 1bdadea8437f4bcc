import { Injectable } from '@nestjs/common';
import { onShelfSql } from '../allocation/index.js';
import { DataSource } from 'typeorm';
import { urgentSql } from '../orders/index.js';
import { num, one, rows, siteDays, sqlList } from '../platform/index.js';
import type { LineDto, StageDto, UrgentDto } from './desk.dto.js';
import { PaceQueries } from './pace.queries.js';
import type { Stage } from './stages.js';
import type { Pace } from '@vectrum/core/pace';
import { kindsFor } from '@vectrum/core/places';
import { ordersIn } from '@vectrum/core/orders';

const PROMISABLE = sqlList(ordersIn('promisable'));
const WAITS = sqlList(ordersIn('not begun'));
const NAMED = 3;
const WAITING = sqlList(kindsFor('wait'));

const hundredths = (n: number) => Math.round(n * 100) / 100;

interface Figures {
  n: string | number;
  oldest: Date | null;
  stuck: string | number;
}

/** The Line: what waits at each stage, how long its oldest has waited, and how much of it is stuck. */
@Injectable()
export class LineQueries {
  constructor(
    private readonly source: DataSource,
    private readonly paces: PaceQueries,
  ) {}

  async line(siteIds: readonly number[]): Promise<LineDto> {
    const sites = [0, ...siteIds];
    const today = (await siteDays(this.source)).today('site_id');
    const paces = await this.paces.paces(siteIds);
    const stages = await Promise.all([
      this.stage(
        paces,
        'inbound',
        'due today',
        `SELECT COUNT(*) AS n, MIN(first_received_at) AS oldest, COALESCE(SUM(expected_on < ${today}), 0) AS stuck FROM purchase_order WHERE state IN ('placed','part-received') AND expected_on <= ${today} AND site_id IN (?)`,
        sites,
      ),
      this.stage(
        paces,
        'shelves',
        'to put away',
        `SELECT COUNT(*) AS n, NULL AS oldest, 0 AS stuck FROM balance b JOIN place p ON p.id = b.place_id WHERE p.kind IN ${WAITING} AND b.stock_condition = 'good' AND b.units > 0 AND p.site_id IN (?)`,
        sites,
      ),
      this.stage(
        paces,
        'orders',
        'open',
        `SELECT COUNT(*) AS n, MIN(placed_at) AS oldest, COALESCE(SUM(state = 'held' OR promised_at < UTC_TIMESTAMP()), 0) AS stuck FROM sales_order WHERE state IN ${PROMISABLE} AND site_id IN (?)`,
        sites,
      ),
      this.stage(
        paces,
        'picking',
        'rounds',
        `SELECT COUNT(*) AS n, MIN(r.created_at) AS oldest, COALESCE(SUM(EXISTS (SELECT 1 FROM round_stop s WHERE s.round_id = r.id AND s.short_units > 0)), 0) AS stuck FROM \`round\` r WHERE r.state IN ('waiting','picking') AND r.site_id IN (?)`,
        sites,
      ),
      this.stage(
        paces,
        'packing',
        'to pack',
        `SELECT COUNT(DISTINCT o.id) AS n, MIN(u.set_down_at) AS oldest, 0 AS stuck FROM sales_order o JOIN sales_order_line l ON l.order_id = o.id JOIN reservation v ON v.order_line_id = l.id AND v.place_id IS NOT NULL JOIN place t ON t.id = v.place_id LEFT JOIN tote_use u ON u.open_tote = v.place_id AND u.order_id = o.id AND u.set_down_at IS NOT NULL
         WHERE o.state = 'picked' AND (u.id IS NOT NULL OR ${onShelfSql('v', 't')}) AND t.site_id IN (?)`,
        sites,
      ),
      this.stage(
        paces,
        'dispatch',
        'parcels',
        `SELECT COUNT(*) AS n, MIN(COALESCE(p.labelled_at, p.label_asked_at)) AS oldest, COALESCE(SUM(p.state = 'label-asked' AND p.label_asked_at < UTC_TIMESTAMP() - INTERVAL 2 MINUTE), 0) AS stuck FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.state IN ('label-asked','labelled') AND o.site_id IN (?)`,
        sites,
      ),
    ]);
    const arrived = await one<{ oldest: Date | null }>(
      this.source,
      `SELECT MIN(m.server_at) AS oldest FROM balance b JOIN place p ON p.id = b.place_id JOIN movement m ON m.to_place_id = b.place_id AND m.item_id = b.item_id WHERE p.kind = 'dock' AND b.units > 0 AND p.site_id IN (?) AND m.server_at > UTC_TIMESTAMP() - INTERVAL 14 DAY`,
      [sites],
    );
    const shelves = stages.find((s) => s.stage === 'shelves');
    if (shelves) shelves.oldest = arrived?.oldest ?? null;
    return { now: new Date(), stages, ...(await this.urgent(sites)) };
  }

  /** What goes before everything else, until somebody begins with it. */
  private async urgent(sites: readonly number[]): Promise<Pick<LineDto, 'urgent' | 'urgentCount'>> {
    const found = await rows<UrgentDto & { all: string }>(
      this.source,
      `SELECT o.code, o.customer, o.promised_at AS promisedAt, COUNT(*) OVER () AS \`all\`,
         (SELECT r.code FROM round_order x JOIN \`round\` r ON r.id = x.round_id AND r.state = 'waiting' WHERE x.order_id = o.id LIMIT 1) AS \`round\`
       FROM sales_order o WHERE o.state IN ${WAITS} AND o.site_id IN (?) AND ${urgentSql('o')} ORDER BY o.promised_at, o.id LIMIT ${NAMED}`,
      [sites],
    );
    return { urgent: found.map(({ all: _, ...order }) => order), urgentCount: num(found[0]?.all ?? 0) };
  }

  private async stage(
    paces: Readonly<Record<Stage, Pace | null>>,
    stage: Stage,
    unit: string,
    sql: string,
    sites: readonly number[],
  ): Promise<StageDto> {
    const pace = paces[stage];
    const found = await one<Figures>(this.source, sql, [sites]);
    const count = num(found?.n);
    return {
      stage,
      unit,
      count,
      oldest: found?.oldest ?? null,
      stuck: num(found?.stuck),
      hours: pace && hundredths((count * pace.minutesEach) / 60),
      hoursADay: pace && hundredths(pace.hoursADay),
    };
  }
}
