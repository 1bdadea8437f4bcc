import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { ReleasedDto } from '../orders/index.js';
import { type Act, Acting, AskedWindow, AtSites, CodeDto, IfMatch, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { RoundPageDto } from './picking.dto.js';
import { RecallService } from './recall.service.js';
import { ReleaseService } from './release.service.js';
import { RoundsQueries } from './rounds.queries.js';

@Controller('api')
export class PickingController {
  constructor(
    private readonly queries: RoundsQueries,
    private readonly releases: ReleaseService,
    private readonly recalls: RecallService,
  ) {}

  @Post('orders/:code/release')
  @Access('release')
  @HttpCode(200)
  release(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<ReleasedDto> {
    return this.releases.release(act, code.toUpperCase(), version);
  }

  /** Takes an order back from picking, as long as nothing of it is picked. */
  @Post('orders/:code/recall')
  @Access('release')
  @HttpCode(200)
  recall(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.recalls.recall(act, code.toUpperCase(), version);
  }

  @Get('rounds')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(@Reader() person: Person, @AtSites() siteIds: readonly number[], @AskedWindow() window: Window): Promise<RoundPageDto> {
    return this.queries.list(siteIds, person.id, window);
  }
}
