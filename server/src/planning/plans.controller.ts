import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts } from '../identity/index.js';
import { type Act, Acting, IdDto, mustBeAt, type Person, Reader, textOf, wholeOf } from '../platform/index.js';
import { LatestBackTestDto } from './back-test.dto.js';
import { BackTests } from './back-tests.js';
import { CoverageDto, ExcessDto } from './coverage.dto.js';
import { CoverageQueries } from './coverage.queries.js';
import { ItemPlanDto } from './item-plan.dto.js';
import { ItemPlanQueries } from './item-plan.queries.js';
import { PlanAgainDto } from './planning.dto.js';
import { TruthQueries } from './truth.queries.js';

const ASKED = ['late', 'demand', 'order', 'none'] as const;

/** What is planned: of one item, of the whole range, and how right it would have been. */
@Controller('api/buying')
@Access('buy')
export class PlansController {
  constructor(
    private readonly plans: ItemPlanQueries,
    private readonly covers: CoverageQueries,
    private readonly tests: BackTests,
    private readonly truths: TruthQueries,
  ) {}

  /**
   * The plan of an item at a site with what it is made from, and its stock day by day, as it is and what if: deliveries `late` by so
   * many days or not at all (`none` is 1), `demand` so many per cent of what is expected, `order` so many units today.
   */
  @Get('sites/:siteId/items/:sku')
  @ApiQuery({ name: 'late', required: false, type: String })
  @ApiQuery({ name: 'demand', required: false, type: String })
  @ApiQuery({ name: 'order', required: false, type: String })
  @ApiQuery({ name: 'none', required: false, type: String })
  item(
    @Reader() person: Person,
    @Param('siteId', ParseIntPipe) siteId: number,
    @Param('sku') sku: string,
    @Query() query: Record<string, unknown>,
  ): Promise<ItemPlanDto> {
    mustBeAt(person, siteId);
    const [late, demand, order, none] = ASKED.map((name) => query[name]);
    return this.plans.read(person, sku, siteId, {
      lateDays: wholeOf(late, 0, 0, 180),
      demand: wholeOf(demand, 100, 0, 1_000) / 100,
      orderUnits: wholeOf(order, 0, 0, 10_000_000),
      noArrivals: wholeOf(none, 0) === 1,
    });
  }

  /** How long stock lasts, by what a year of it costs (A to C) and how even its weeks are (X to Z); with the items of one `field`. */
  @Get('sites/:siteId/coverage')
  @ApiQuery({ name: 'field', required: false, type: String })
  coverage(
    @Reader() person: Person,
    @Param('siteId', ParseIntPipe) siteId: number,
    @Query() query: Record<string, unknown>,
  ): Promise<CoverageDto> {
    mustBeAt(person, siteId);
    return this.covers.coverage(person, siteId, textOf(query['field'], 2));
  }

  /** What there is too much of, and what could be done about it. */
  @Get('sites/:siteId/excess')
  excess(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<ExcessDto> {
    mustBeAt(person, siteId);
    return this.covers.excess(person, siteId);
  }

  /** The newest trial of the last year by these plans and by plain rules, with how far it is; and what became of proposals that were taken. */
  @Get('sites/:siteId/back-test')
  @OfCosts()
  async backTest(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<LatestBackTestDto> {
    mustBeAt(person, siteId);
    const [latest, truth] = await Promise.all([this.tests.latest(siteId), this.truths.ofSite(siteId)]);
    return { latest, truth };
  }

  /** Begins to try a site's last year. */
  @Post('back-tests')
  @OfCosts()
  @HttpCode(202)
  tryIt(@Acting() act: Act, @Body() body: PlanAgainDto): Promise<IdDto> {
    return this.tests.ask(act, body.siteId);
  }
}
