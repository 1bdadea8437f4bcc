import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, mustBeAt, type Person, Reader } from '../platform/index.js';
import { BuyingQueries } from './buying.queries.js';
import { BuyingService } from './buying.service.js';
import {
  BringBackDto,
  BuyingDto,
  OrdersMadeDto,
  PlanAgainDto,
  PlanningDto,
  PutOffProposalDto,
  SkuDto,
  TakeProposalsDto,
} from './planning.dto.js';

/** What to buy, and what becomes of it. */
@Controller('api/buying')
@Access('buy')
export class BuyingController {
  constructor(
    private readonly queries: BuyingQueries,
    private readonly buying: BuyingService,
  ) {}

  /** What should be bought at a site now, by supplier, with what happens without it. */
  @Get('sites/:siteId')
  at(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<BuyingDto> {
    mustBeAt(person, siteId);
    return this.queries.at(person, siteId);
  }

  /** Makes drafts of orders of what was chosen, one for each supplier. */
  @Post('take')
  take(@Acting() act: Act, @Body() body: TakeProposalsDto): Promise<OrdersMadeDto> {
    return this.buying.take(act, body);
  }

  /** Does not propose an item until a day, for a month, or for good. */
  @Post('put-off')
  @HttpCode(200)
  putOff(@Acting() act: Act, @Body() body: PutOffProposalDto): Promise<SkuDto> {
    return this.buying.putOff(act, body);
  }

  /** Proposes again what was put off or dropped. */
  @Post('bring-back')
  @HttpCode(200)
  bringBack(@Acting() act: Act, @Body() body: BringBackDto): Promise<SkuDto> {
    return this.buying.bringBack(act, body);
  }

  /** Plans a site anew, without waiting for the morning. */
  @Post('plan-again')
  @HttpCode(200)
  again(@Acting() act: Act, @Body() body: PlanAgainDto): Promise<PlanningDto> {
    return this.buying.again(act, body.siteId);
  }
}
