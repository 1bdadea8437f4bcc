import { Injectable } from '@nestjs/common';
import type { RoundLimits } from '@vectrum/core/rounds';
import { metresOfWalks, type PlanPoint } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { dayIn, daySpan, one, type Row, task, Work } from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import type { BoardOrderDto, ReleaseBoardDto } from './board.dto.js';
import { BoardQueries } from './board.queries.js';
import type { planRoundsOf } from './rounds-plan.js';
import type { RunPreviewDto } from './runs.dto.js';

const PLAN = task<typeof planRoundsOf>('picking/planRoundsOf', 60_000, 'Too much waits for one run. Send some of it from Release first');

export type DailyRunRow = Row<'daily_run'>;

/** What a rule sends: orders grouped into rounds, and those that it leaves. */
export interface RunPlan {
  board: ReleaseBoardDto;
  rounds: BoardOrderDto[][];
  left: { order: BoardOrderDto; why: string }[];
}

/** Works out what a daily run sends: what waits and must catch its van, grouped into rounds of few metres. */
@Injectable()
export class RunPlans {
  constructor(
    private readonly source: DataSource,
    private readonly boards: BoardQueries,
    private readonly floors: FloorQueries,
    private readonly calendars: CalendarQueries,
    private readonly work: Work,
  ) {}

  /** What the rule would send at a moment. `seconds`: how long rounds may get better. Orders of no other sites than the person's. */
  async plan(run: DailyRunRow, siteIds: readonly number[], now: Date, seconds: number): Promise<RunPlan> {
    const board = await this.boards.board(run.site_id, siteIds);
    const until = await this.until(run, now);
    const channel =
      run.channel_id === null
        ? null
        : ((await one<{ name: string }>(this.source, 'SELECT name FROM channel WHERE id = ?', [run.channel_id]))?.name ?? '');
    const left: RunPlan['left'] = [];
    const going = board.orders.filter((order) => {
      if (new Date(order.leavesAt) > until || (channel !== null && order.channel !== channel)) return false;
      if (run.most_stops !== null && order.stops.length > run.most_stops) return false;
      const [lack] = order.lacks;
      if (lack) left.push({ order, why: `bins open to picking lack ${lack.units} of ${lack.item}` });
      return lack === undefined;
    });
    if (run.pooled === 1 && board.wallSlots === 0)
      return { board, rounds: [], left: [...left, ...going.map((order) => ({ order, why: 'there is no sorting wall to sort it at' }))] };
    return { board, rounds: await this.grouped(run, board, going, seconds), left };
  }

  /** The plan as somebody looks at it, with the metres of each round. */
  async preview(plan: RunPlan): Promise<RunPreviewDto> {
    const floor = await this.floors.floor(this.source, plan.board.siteId);
    const at = pointsOf(plan.board);
    const walks = plan.rounds.map((r) => [...new Set(r.flatMap((o) => o.stops.map((s) => s.placeId)))].flatMap((id) => at.get(id) ?? []));
    const metres = metresOfWalks(floor, walks, plan.board.table, plan.board.table);
    return {
      rounds: plan.rounds.map((orders, i) => ({
        orders: orders.map((o) => o.code),
        stops: orders.reduce((n, o) => n + o.stops.length, 0),
        units: orders.reduce((n, o) => n + o.units, 0),
        metres: walks[i]?.length ? Math.round(metres[i] ?? 0) : 0,
      })),
      left: plan.left.map(({ order, why }) => ({ order: order.code, customer: order.customer, why })),
    };
  }

  /** What leaves up to here goes: the rule's van of the day, or the day's end, by the clock of the site. */
  private async until(run: DailyRunRow, now: Date): Promise<Date> {
    const { timeZone } = await this.calendars.of(this.source, run.site_id);
    const { from, to } = daySpan(timeZone, dayIn(timeZone, now));
    if (run.van_at === null) return to;
    const [hours = 0, minutes = 0] = run.van_at.split(':').map(Number);
    return new Date(from.getTime() + (hours * 60 + minutes) * 60_000);
  }

  private async grouped(run: DailyRunRow, board: ReleaseBoardDto, orders: BoardOrderDto[], seconds: number): Promise<BoardOrderDto[][]> {
    if (orders.length === 0) return [];
    const index = new Map(board.places.map((p, i) => [p.id, i]));
    const limits: RoundLimits = {
      orders: run.pooled === 1 ? board.wallSlots : board.roundOrders,
      units: Number.MAX_SAFE_INTEGER,
      weightG: board.roundKilos * 1000,
      volumeMl: board.roundLitres * 1000,
    };
    const shapes = await this.floors.shapes(this.source, run.site_id);
    const found = await this.work.run(PLAN, {
      segments: shapes.filter((s) => s.kind !== 'wall').map((s) => ({ id: s.id, x: +s.x, y: +s.y, toX: +s.toX, toY: +s.toY })),
      table: board.table,
      places: board.places.map((p) => (p.x === null || p.y === null ? null : { x: p.x, y: p.y })),
      orders: orders.map((o) => ({
        units: o.units,
        weightG: o.weightG,
        volumeMl: o.volumeMl,
        places: [...new Set(o.stops.flatMap((s) => index.get(s.placeId) ?? []))],
        departure: new Date(o.leavesAt).toISOString(),
      })),
      limits,
      seconds,
    });
    return found.map((round) => round.flatMap((i) => orders[i] ?? []));
  }
}

const pointsOf = (board: ReleaseBoardDto): Map<number, PlanPoint> =>
  new Map(board.places.flatMap((p) => (p.x === null || p.y === null ? [] : [[p.id, { x: p.x, y: p.y }] as const])));
