import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Patch, Post, Put, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, mustBeAt, type Person, Reader, wholeOf } from '../platform/index.js';
import { AislesService } from './aisles.service.js';
import { placeFilter } from './place-filter.js';
import { PlacesQueries } from './places.queries.js';
import { PlanService } from './plan.service.js';
import {
  AislesDto,
  AislesMadeDto,
  EditPlaceDto,
  EditPlanDto,
  EditZoneDto,
  NewZoneDto,
  NewPlaceDto,
  PlacePageDto,
  PlaceSheetDto,
  PlanDto,
  ZoneDto,
} from './sites.dto.js';
import { SitesService } from './sites.service.js';

const MOST_ROWS = 500;

@Controller('api')
export class SitesController {
  constructor(
    private readonly sites: SitesService,
    private readonly queries: PlacesQueries,
    private readonly aisles: AislesService,
    private readonly plans: PlanService,
  ) {}

  @Get('places')
  @Access('signed-in')
  @ApiQuery({ name: 'search', required: false, type: String })
  @ApiQuery({ name: 'kind', required: false, type: String })
  @ApiQuery({ name: 'zone', required: false, type: String })
  @ApiQuery({ name: 'state', required: false, type: String })
  @ApiQuery({ name: 'site', required: false, type: String })
  @ApiQuery({ name: 'sort', required: false, type: String })
  @ApiQuery({ name: 'from', required: false, type: String })
  @ApiQuery({ name: 'limit', required: false, type: String })
  list(@Reader() person: Person, @Query() query: Record<string, string>): Promise<PlacePageDto> {
    return this.queries.page(person.siteIds, placeFilter(query), wholeOf(query['from'], 0), wholeOf(query['limit'], 100, 1, MOST_ROWS));
  }

  @Get('places/:code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<PlaceSheetDto> {
    return this.queries.sheet(person.siteIds, code.toUpperCase());
  }

  @Post('places')
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: NewPlaceDto): Promise<CodeDto> {
    return this.sites.add(act, body);
  }

  /** Builds aisles by rule; with `preview` it only says what would be made. */
  @Post('places/aisles')
  @Access('set-up')
  @HttpCode(200)
  build(@Acting() act: Act, @Body() body: AislesDto): Promise<AislesMadeDto> {
    return body.preview ? this.aisles.preview(act, body) : this.aisles.build(act, body);
  }

  @Patch('places/:code')
  @Access('set-up')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditPlaceDto): Promise<CodeDto> {
    return this.sites.edit(act, code.toUpperCase(), version, body);
  }

  @Get('zones')
  @Access('signed-in')
  zones(@Reader() person: Person): Promise<ZoneDto[]> {
    return this.queries.zones(person.siteIds);
  }

  @Post('zones')
  @Access('set-up')
  addZone(@Acting() act: Act, @Body() body: NewZoneDto): Promise<CodeDto> {
    return this.sites.addZone(act, body);
  }

  @Put('zones/:code')
  @Access('set-up')
  editZone(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditZoneDto): Promise<CodeDto> {
    return this.sites.editZone(act, code, version, body);
  }

  @Get('plans/:siteId')
  @Access('signed-in')
  plan(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<PlanDto> {
    mustBeAt(person, siteId);
    return this.plans.plan(siteId);
  }

  @Put('plans/:siteId')
  @Access('set-up')
  @HttpCode(204)
  async editPlan(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('siteId', ParseIntPipe) siteId: number,
    @Body() body: EditPlanDto,
  ): Promise<void> {
    await this.plans.edit(act, siteId, version, body);
  }
}
