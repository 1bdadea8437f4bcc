import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import {
  type Act,
  Acting,
  AskedWindow,
  AtSites,
  CodeDto,
  IfMatch,
  type Person,
  Reader,
  textOf,
  type Window,
  Windowed,
} from '../platform/index.js';
import { BuildableDto, BuildDto, BuildPageDto, FinishBuildDto, PlanBuildDto, TakeApartDto } from './building.dto.js';
import { BuildingQueries } from './building.queries.js';
import { Builds } from './builds.service.js';
import { Finishing } from './finishing.service.js';

/** What is built here of parts, and taken apart. */
@Controller('api/builds')
export class BuildingController {
  constructor(
    private readonly queries: BuildingQueries,
    private readonly builds: Builds,
    private readonly finishing: Finishing,
  ) {}

  @Get()
  @Access('signed-in')
  @ApiQuery({ name: 'q', required: false, type: String })
  @ApiQuery({ name: 'state', required: false, enum: ['open', 'all'] })
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(
    @AtSites() siteIds: readonly number[],
    @AskedWindow() window: Window,
    @Query('q') q?: unknown,
    @Query('state') state?: unknown,
  ): Promise<BuildPageDto> {
    return this.queries.list(siteIds, { q: textOf(q, 60), all: state === 'all' }, window);
  }

  /** How many can be built of what is free, and what allows no more. */
  @Get('buildable')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  buildable(@AtSites() siteIds: readonly number[]): Promise<BuildableDto[]> {
    return this.queries.buildable(siteIds);
  }

  @Get(':code')
  @Access('signed-in')
  one(@Reader() person: Person, @Param('code') code: string): Promise<BuildDto> {
    return this.queries.sheet(person, code);
  }

  @Post()
  @Access('release', 'items', 'store')
  plan(@Acting() act: Act, @Body() body: PlanBuildDto): Promise<CodeDto> {
    return this.builds.plan(act, body);
  }

  /** Something is taken apart into what it is made of. */
  @Post('apart')
  @Access('store')
  @HttpCode(200)
  apart(@Acting() act: Act, @Body() body: TakeApartDto): Promise<CodeDto> {
    return this.finishing.takeApart(act, body);
  }

  @Post(':code/finish')
  @Access('store')
  @HttpCode(200)
  finish(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: FinishBuildDto): Promise<CodeDto> {
    return this.finishing.finish(act, code, version, body);
  }

  @Post(':code/cancel')
  @Access('release', 'items', 'store')
  @HttpCode(200)
  cancel(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.builds.cancel(act, code, version);
  }
}
