import { Body, Controller, Get, Post, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, AtSites, CodeDto, type Person, Reader } from '../platform/index.js';
import { ArrivalsService } from './arrivals.service.js';
import { DueQueries } from './due.queries.js';
import { DueDto, FindDueDto, NewArrivalDto } from './receiving.dto.js';

@Controller('api/floor')
export class ReceivingController {
  constructor(
    private readonly arrivals: ArrivalsService,
    private readonly dues: DueQueries,
  ) {}

  @Get('receive')
  @Access('receive')
  @ApiQuery({ name: 'site', required: false, type: String })
  due(@AtSites() siteIds: readonly number[]): Promise<DueDto[]> {
    return this.dues.due(siteIds);
  }

  /** Where a code leads at the dock: paper, pallet or goods that are due. */
  @Get('due')
  @Access('receive')
  findDue(@Reader() person: Person, @Query('code') code: string): Promise<FindDueDto> {
    return this.dues.find(person.siteIds, String(code ?? '').slice(0, 200));
  }

  /** Opens an arrival for goods that came without an order. */
  @Post('arrivals')
  @Access('take-in')
  addArrival(@Acting() act: Act, @Body() body: NewArrivalDto): Promise<CodeDto> {
    return this.arrivals.add(act, body);
  }
}
