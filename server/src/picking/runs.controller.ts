import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, IfMatch, type Person, Reader } from '../platform/index.js';
import { RunRules } from './run-rules.service.js';
import { DailyRunIdDto, DailyRunsDto, EditDailyRunDto, RunPreviewDto } from './runs.dto.js';

/** Rules by which orders are sent to picking every day. */
@Controller('api/daily-runs')
export class RunsController {
  constructor(private readonly rules: RunRules) {}

  @Get()
  @Access('release')
  list(@Reader() person: Person): Promise<DailyRunsDto> {
    return this.rules.list(person.siteIds);
  }

  /** What the rule would send if it were due now. */
  @Get(':id/preview')
  @Access('release')
  preview(@Reader() person: Person, @Param('id', ParseIntPipe) id: number): Promise<RunPreviewDto> {
    return this.rules.preview(person, id);
  }

  @Post()
  @Access('release')
  add(@Acting() act: Act, @Body() body: EditDailyRunDto): Promise<DailyRunIdDto> {
    return this.rules.add(act, body);
  }

  @Put(':id')
  @Access('release')
  edit(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: EditDailyRunDto,
  ): Promise<DailyRunIdDto> {
    return this.rules.edit(act, id, version, body);
  }

  @Delete(':id')
  @Access('release')
  @HttpCode(200)
  remove(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<DailyRunIdDto> {
    return this.rules.remove(act, id, version);
  }
}
