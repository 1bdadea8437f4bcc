import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, mustBeAt, type Person, Reader } from '../platform/index.js';
import { GiveStopDto, PickerDto, ReleaseBoardDto, SendRoundDto, SendRoundsDto, SentRoundsDto } from './board.dto.js';
import { BoardQueries } from './board.queries.js';
import { SendingService } from './sending.service.js';
import { SharesService } from './shares.service.js';
import { WalksDto } from './walks.dto.js';
import { WalksQueries } from './walks.queries.js';

/** Deciding what is picked next, and by whom. */
@Controller('api')
export class BoardController {
  constructor(
    private readonly queries: BoardQueries,
    private readonly sending: SendingService,
    private readonly now: WalksQueries,
    private readonly shares: SharesService,
  ) {}

  @Get('sites/:siteId/release-board')
  @Access('release')
  board(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<ReleaseBoardDto> {
    mustBeAt(person, siteId);
    return this.queries.board(siteId, person.siteIds);
  }

  /** Who walks there now, how far they are, and when they will be through. */
  @Get('sites/:siteId/walks')
  @Access('pick', 'release')
  walks(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<WalksDto> {
    mustBeAt(person, siteId);
    return this.now.at(siteId);
  }

  /** Who may be sent to pick there. */
  @Get('sites/:siteId/pickers')
  @Access('pick', 'release')
  async pickers(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<PickerDto[]> {
    mustBeAt(person, siteId);
    return this.queries.whoPicks(siteId);
  }

  /** Sends many orders to picking, grouped into rounds: all of them, or none where one cannot go. */
  @Post('rounds')
  @Access('release')
  send(@Acting() act: Act, @Body() body: SendRoundsDto): Promise<SentRoundsDto> {
    return this.sending.send(act, body);
  }

  /** Gives a round that waits to somebody, or to whoever takes it. */
  @Post('rounds/:code/send')
  @Access('release')
  @HttpCode(200)
  give(@Acting() act: Act, @Param('code') code: string, @Body() body: SendRoundDto): Promise<CodeDto> {
    return this.sending.give(act, code.toUpperCase(), body.sentTo ?? null);
  }

  /** Takes a stop away from one and gives it to another. */
  @Post('rounds/:code/stops/:stopId/give')
  @Access('release')
  @HttpCode(200)
  giveStop(
    @Acting() act: Act,
    @Param('code') code: string,
    @Param('stopId', ParseIntPipe) stopId: number,
    @Body() body: GiveStopDto,
  ): Promise<CodeDto> {
    return this.shares.give(act, code.toUpperCase(), stopId, body.personId ?? null);
  }

  /** Takes a round back that nobody has begun; its orders wait again. */
  @Post('rounds/:code/recall')
  @Access('release')
  @HttpCode(200)
  recall(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.sending.recall(act, code.toUpperCase());
  }
}
