import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { Access, OfCosts, OfTheHouse } from '../identity/index.js';
import { type Act, Acting, IfMatch } from '../platform/index.js';
import { Periods } from './periods.service.js';
import { ClosePeriodDto, PeriodsDto, ReopenPeriodDto, SetTimetableDto, TimetableDto } from './timetables.dto.js';
import { Timetables } from './timetables.js';

/** What the books do by themselves, and the periods that are closed. */
@Controller('api/books')
@Access('invoices')
@OfCosts()
@OfTheHouse()
export class TimetablesController {
  constructor(
    private readonly timetables: Timetables,
    private readonly periods: Periods,
  ) {}

  @Get('timetables')
  list(): Promise<TimetableDto[]> {
    return this.timetables.list();
  }

  /** `what` is export or invoices; version 0 where none is set. */
  @Put('timetables/:what')
  @HttpCode(204)
  set(@Acting() act: Act, @IfMatch() version: number, @Param('what') what: string, @Body() body: SetTimetableDto): Promise<void> {
    return this.timetables.set(act, what, version, body.every ?? null);
  }

  @Get('periods')
  closed(): Promise<PeriodsDto> {
    return this.periods.list();
  }

  @Post('periods/close')
  @HttpCode(204)
  close(@Acting() act: Act, @Body() body: ClosePeriodDto): Promise<void> {
    return this.periods.close(act, body.through);
  }

  @Post('periods/reopen')
  @HttpCode(204)
  reopen(@Acting() act: Act, @Body() body: ReopenPeriodDto): Promise<void> {
    return this.periods.reopen(act, body.why);
  }
}
