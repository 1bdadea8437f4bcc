import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { ReleasedDto } from '../orders/index.js';
import { type Act, Acting, AskedWindow, AtSites, IfMatch, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { RoundPageDto } from './picking.dto.js';
import { PickingQueries } from './picking.queries.js';
import { ReleaseService } from './release.service.js';

@Controller('api')
export class PickingController {
  constructor(
    private readonly queries: PickingQueries,
    private readonly releases: ReleaseService,
  ) {}

  @Post('orders/:code/release')
  @Access('release')
  @HttpCode(200)
  release(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<ReleasedDto> {
    return this.releases.release(act, code.toUpperCase(), version);
  }

  @Get('rounds')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(@Reader() person: Person, @AtSites() siteIds: readonly number[], @AskedWindow() window: Window): Promise<RoundPageDto> {
    return this.queries.list(siteIds, person.id, window);
  }
}
