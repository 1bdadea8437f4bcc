import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Bundle, PickTask } from '@vectrum/core/scan';
import { Access } from '../identity/access.js';
import { ReleasedDto } from '../orders/orders.dto.js';
import { type Act, Acting, mustBeAt, type Person, Reader } from '../platform/act.js';
import { CodeDto } from '../platform/code.dto.js';
import { IfMatch } from '../platform/version.js';
import { PostedDto } from '../receiving/receiving.dto.js';
import { PickDto, RoundRowDto, SetDownDto, ShortDto } from './picking.dto.js';
import { PickingQueries } from './picking.queries.js';
import { PickingService } from './picking.service.js';
import { ReleaseService } from './release.service.js';
import { ShortService } from './short.service.js';

@Controller('api')
export class PickingController {
  constructor(
    private readonly queries: PickingQueries,
    private readonly picking: PickingService,
    private readonly releases: ReleaseService,
    private readonly shorts: ShortService,
  ) {}

  @Post('orders/:code/release')
  @Access('release')
  @HttpCode(200)
  release(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<ReleasedDto> {
    return this.releases.release(act, code.toUpperCase(), version);
  }

  @Get('rounds')
  @Access('signed-in')
  list(@Reader() person: Person): Promise<RoundRowDto[]> {
    return this.queries.list(person.siteIds, person.id);
  }

  @Get('floor/rounds/:code')
  @Access('pick')
  @ApiOkResponse({ schema: { type: 'object' } })
  async task(@Reader() person: Person, @Param('code') code: string): Promise<PickTask & Bundle & { state: string }> {
    const task = await this.queries.bundle(code.toUpperCase());
    mustBeAt(person, task.siteId);
    return task;
  }

  @Post('floor/rounds/:code/take')
  @Access('pick')
  @HttpCode(200)
  take(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.picking.take(act, code.toUpperCase());
  }

  @Post('floor/rounds/:code/picks')
  @Access('pick')
  @HttpCode(200)
  pick(@Acting() act: Act, @Param('code') code: string, @Body() body: PickDto): Promise<PostedDto> {
    return this.picking.pick(act, code.toUpperCase(), body);
  }

  @Post('floor/rounds/:code/shorts')
  @Access('pick')
  @HttpCode(200)
  short(@Acting() act: Act, @Param('code') code: string, @Body() body: ShortDto): Promise<PostedDto> {
    return this.shorts.short(act, code.toUpperCase(), body);
  }

  @Post('floor/rounds/:code/set-down')
  @Access('pick')
  @HttpCode(200)
  setDown(@Acting() act: Act, @Param('code') code: string, @Body() body: SetDownDto): Promise<PostedDto> {
    return this.picking.setDown(act, code.toUpperCase(), body);
  }
}
