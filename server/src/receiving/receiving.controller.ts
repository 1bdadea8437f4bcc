import { Body, Controller, Get, Header, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Codebook, ReceiveTask, StoreTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/activity.service.js';
import { CodebookQueries } from '../catalogue/codebook.queries.js';
import { Access } from '../identity/access.js';
import { type Act, Acting, mustBeAt, type Person, Reader } from '../platform/act.js';
import { CodeDto } from '../platform/code.dto.js';
import { CommandLog } from '../platform/command-log.js';
import { ArrivalsService } from './arrivals.service.js';
import { DueQueries } from './due.queries.js';
import {
  CloseArrivalDto,
  ClosedArrivalDto,
  DueDto,
  FindDueDto,
  NewArrivalDto,
  PostedDto,
  ReceiveDto,
  ReceivedDto,
  ReceivePalletDto,
  RefusedDto,
  StoreDto,
} from './receiving.dto.js';
import { ReceivingService } from './receiving.service.js';
import { StoringService } from './storing.service.js';

const BAND_GLYPHS = { 'not-this': 'fb-wrong', 'too-many': 'fb-many', unknown: 'fb-unknown' } as const;
const BAND_WORDS = { 'not-this': 'Not this one', 'too-many': 'Too many', unknown: 'Unknown code' } as const;

@Controller('api/floor')
export class ReceivingController {
  constructor(
    private readonly source: DataSource,
    private readonly receiving: ReceivingService,
    private readonly storing: StoringService,
    private readonly arrivals: ArrivalsService,
    private readonly dues: DueQueries,
    private readonly codebook: CodebookQueries,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** Every code that means something at a site, kept by the phone. */
  @Get('codebook')
  @Access('signed-in')
  @Header('cache-control', 'private, max-age=0')
  @ApiOkResponse({ schema: { type: 'object' } })
  book(@Reader() person: Person, @Query('site') site: string): Promise<Codebook> {
    mustBeAt(person, Number(site));
    return this.codebook.book(this.source, Number(site));
  }

  /** Puts a refused scan on the tape; nothing else changes. */
  @Post('refusals')
  @Access('signed-in')
  refuse(@Acting() act: Act, @Body() body: RefusedDto): Promise<PostedDto> {
    if (body.siteId !== undefined) mustBeAt(act.person, body.siteId);
    return this.commands.run(act, 'refusal', body, async (tx) => ({
      activityId: await this.activity.record(tx, act, {
        kind: 'refusal',
        glyph: BAND_GLYPHS[body.band],
        title: `${BAND_WORDS[body.band]}: ${body.title}`,
        detail: body.detail,
        document: body.document ?? null,
        siteId: body.siteId ?? act.person.siteIds[0] ?? null,
        how: body.how,
      }),
    }));
  }

  @Get('receive')
  @Access('receive')
  due(@Reader() person: Person): Promise<DueDto[]> {
    return this.dues.due(person.siteIds);
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

  @Get('receive/:code')
  @Access('receive')
  @ApiOkResponse({ schema: { type: 'object' } })
  receiveTask(@Reader() person: Person, @Param('code') code: string): Promise<ReceiveTask> {
    return this.receiving.task(person, code.toUpperCase());
  }

  @Post('receive/:code')
  @Access('receive')
  @HttpCode(200)
  receive(@Acting() act: Act, @Param('code') code: string, @Body() body: ReceiveDto): Promise<ReceivedDto> {
    return this.receiving.receive(act, code.toUpperCase(), body);
  }

  @Post('receive/:code/pallets')
  @Access('receive')
  @HttpCode(200)
  receivePallet(@Acting() act: Act, @Param('code') code: string, @Body() body: ReceivePalletDto): Promise<ReceivedDto> {
    return this.receiving.receivePallet(act, code.toUpperCase(), body);
  }

  /** Closes the arrival, with the number of the supplier's paper; tells what is short. */
  @Post('receive/:code/close')
  @Access('receive')
  @HttpCode(200)
  close(@Acting() act: Act, @Param('code') code: string, @Body() body: CloseArrivalDto): Promise<ClosedArrivalDto> {
    return this.arrivals.close(act, code.toUpperCase(), body.paper);
  }

  @Get('store')
  @Access('store')
  @ApiOkResponse({ schema: { type: 'object' } })
  storeTask(@Reader() person: Person, @Query('site') site: string): Promise<StoreTask> {
    mustBeAt(person, Number(site));
    return this.storing.task(Number(site));
  }

  @Post('store')
  @Access('store')
  @HttpCode(200)
  store(@Acting() act: Act, @Body() body: StoreDto): Promise<PostedDto> {
    return this.storing.store(act, body);
  }
}
