import { Controller, Get, Header, HttpCode, Param, ParseIntPipe, ParseUUIDPipe, Post, Put, Query, Req, Res, Sse } from '@nestjs/common';
import { ApiExtraModels, ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { endWith, ignoreElements, interval, map, merge, type Observable, share, takeUntil } from 'rxjs';
import { UndoService } from '../activity/index.js';
import { MOST_PICTURE_BYTES } from '../catalogue/index.js';
import { Access, SessionToken } from '../identity/index.js';
import { type Act, Acting, AtSites, type Person, readBody, Reader, textOf, wholeOf } from '../platform/index.js';
import { ActPictures } from './act-pictures.service.js';
import { FindDto, FirstStepsDto, LiveLinesDto, LineDto, NowDto, TapeDto, UndoneDto } from './desk.dto.js';
import { FirstStepsQueries } from './first-steps.queries.js';
import { FindQueries } from './find.queries.js';
import { LineQueries } from './line.queries.js';
import { LookDto } from './look.dto.js';
import { LookQueries } from './look.queries.js';
import { SharedReading } from './shared-reading.js';
import { LiveService } from './live.service.js';
import { NowQueries } from './now.queries.js';
import { isStage, type Stage, WORK } from './stages.js';
import { TapeQueries } from './tape.queries.js';

const HEARTBEAT_MS = 15_000;
const MOST_ENTRIES = 100;

@Controller('api')
export class DeskController {
  constructor(
    private readonly tape: TapeQueries,
    private readonly live: LiveService,
    private readonly lines: LineQueries,
    private readonly nows: NowQueries,
    private readonly steps: FirstStepsQueries,
    private readonly finds: FindQueries,
    private readonly pictures: ActPictures,
    private readonly undos: UndoService,
    private readonly looks: LookQueries,
    private readonly shared: SharedReading,
  ) {}

  @Get('tape')
  @Access('signed-in')
  newest(
    @Reader() person: Person,
    @Query('document') document?: string,
    @Query('mine') mine?: string,
    @Query('person') who?: string,
    @Query('stage') stage?: string,
    @Query('limit') limit?: string,
  ): Promise<TapeDto> {
    return this.tape.newest(person.siteIds, {
      ...(textOf(document) ? { document: textOf(document) } : {}),
      ...(mine ? { mine: person.id } : {}),
      ...(who && person.rights.has('set-up') ? { mine: wholeOf(who, 0) } : {}),
      ...(isStage(textOf(stage)) ? { kinds: WORK[textOf(stage) as Stage] } : {}),
      limit: wholeOf(limit, 30, 1, MOST_ENTRIES),
    });
  }

  @Post('tape/:id/undo')
  @Access('signed-in')
  undo(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<UndoneDto> {
    return this.undos.undo(act, id);
  }

  /** The body is the picture file itself: JPEG, PNG or WebP. It is added to an act of one's own with goods. */
  @Put('tape/:id/picture')
  @Access('signed-in')
  @HttpCode(204)
  async setPicture(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Req() request: Request): Promise<void> {
    await this.pictures.keep(act, id, await readBody(request, MOST_PICTURE_BYTES));
  }

  @Get('acts/:act/picture')
  @Access('signed-in')
  @Header('cache-control', 'private, max-age=0')
  @ApiOkResponse({ content: { 'image/webp': {} } })
  async picture(@Reader() person: Person, @Res() response: Response, @Param('act', ParseUUIDPipe) id: string): Promise<void> {
    const { type, bytes } = await this.pictures.read(person, id);
    response.type(type).send(bytes);
  }

  /** What a new house still needs to its first scan and its first parcel. */
  @Get('first-steps')
  @Access('set-up')
  firstSteps(@Reader() person: Person): Promise<FirstStepsDto> {
    return this.steps.steps(person);
  }

  /** Server-sent events: `tape` for new lines with what they have changed, `beat` while nothing happens. */
  @Sse('live')
  @ApiExtraModels(LiveLinesDto)
  @Access('signed-in')
  stream(@Reader() person: Person, @SessionToken() token: string): Observable<{ type: string; data: string | object }> {
    const tape = this.live.stream(person.siteIds, token).pipe(
      map((lines) => ({ type: 'tape', data: lines })),
      share(),
    );
    const beat = interval(HEARTBEAT_MS).pipe(map(() => ({ type: 'beat', data: {} })));
    return merge(tape, beat.pipe(takeUntil(tape.pipe(ignoreElements(), endWith(null)))));
  }

  @Get('line')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  line(@AtSites() siteIds: readonly number[]): Promise<LineDto> {
    return this.shared.read(`line ${siteIds.join()}`, () => this.lines.line(siteIds));
  }

  @Get('now')
  @Access('signed-in')
  now(@Reader() person: Person): Promise<NowDto> {
    return this.shared.read(`now ${person.siteIds.join()}`, () => this.nows.now(person.siteIds));
  }

  /** What a scanned code is and where it lies. */
  @Get('look')
  @Access('signed-in')
  look(@Reader() person: Person, @Query('code') code: string): Promise<LookDto> {
    return this.looks.look(person, String(code ?? '').slice(0, 200));
  }

  @Get('find')
  @Access('signed-in')
  find(@Reader() person: Person, @Query('q') q?: string): Promise<FindDto> {
    return this.finds.find(typeof q === 'string' ? q.slice(0, 200) : '', person.siteIds);
  }
}
