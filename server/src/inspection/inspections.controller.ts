import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Bundle, InspectTask } from '@vectrum/core/scan';
import { Access } from '../identity/access.js';
import { type Act, Acting, mustBeAt, type Person, Reader } from '../platform/act.js';
import { PostedDto } from '../receiving/receiving.dto.js';
import { AnswerCheckDto, InspectionDto, InspectionRowDto, JudgeDto } from './inspection.dto.js';
import { InspectionsQueries } from './inspections.queries.js';
import { InspectionsService } from './inspections.service.js';

@Controller('api/inspections')
export class InspectionsController {
  constructor(
    private readonly queries: InspectionsQueries,
    private readonly inspections: InspectionsService,
  ) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person): Promise<InspectionRowDto[]> {
    return this.queries.list(person);
  }

  /** What waits to be looked at at a site, for the phone. */
  @Get('task')
  @Access('inspect')
  @ApiOkResponse({ schema: { type: 'object' } })
  task(@Reader() person: Person, @Query('site') site: string): Promise<InspectTask & Bundle> {
    mustBeAt(person, Number(site));
    return this.queries.task(Number(site));
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<InspectionDto> {
    return this.queries.sheet(person, code.toUpperCase());
  }

  /** Answers one check. */
  @Post(':code/answers')
  @Access('inspect')
  @HttpCode(200)
  answer(@Acting() act: Act, @Param('code') code: string, @Body() body: AnswerCheckDto): Promise<PostedDto> {
    return this.inspections.answer(act, code.toUpperCase(), body);
  }

  /** Passes or rejects goods of this delivery. */
  @Post(':code/verdicts')
  @Access('inspect')
  @HttpCode(200)
  judge(@Acting() act: Act, @Param('code') code: string, @Body() body: JudgeDto): Promise<PostedDto> {
    return this.inspections.judge(act, code.toUpperCase(), body);
  }
}
