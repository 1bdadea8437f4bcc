import { Body, Controller, Get, HttpCode, Post, Put, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts, OfTheHouse } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, isDay, textOf, type Window, Windowed } from '../platform/index.js';
import { AccountsDto, ExportJournalDto, ExportPreviewDto, JournalExportPageDto, JournalPageDto, MapAccountsDto } from './journal.dto.js';
import { journalAsked, JournalQueries } from './journal.queries.js';
import { JournalService } from './journal.service.js';

/** One journal of all that the house posts, and its way into the company's own books. */
@Controller('api/journal')
@Access('invoices')
@OfCosts()
@OfTheHouse()
export class JournalController {
  constructor(
    private readonly queries: JournalQueries,
    private readonly journal: JournalService,
  ) {}

  @Get()
  @Windowed()
  @ApiQuery({ name: 'from', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'to', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'account', required: false, type: String })
  @ApiQuery({ name: 'document', required: false, type: String })
  list(@AskedWindow() window: Window, @Query() query: Record<string, unknown>): Promise<JournalPageDto> {
    return this.queries.list(journalAsked(query), window);
  }

  @Get('accounts')
  @ApiQuery({ name: 'from', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'to', required: false, description: 'ISO date; open where it is left out' })
  accounts(@Query() query: Record<string, unknown>): Promise<AccountsDto> {
    return this.queries.accounts(journalAsked(query));
  }

  @Put('accounts')
  @HttpCode(204)
  map(@Acting() act: Act, @IfMatch() version: number, @Body() body: MapAccountsDto): Promise<void> {
    return this.journal.map(act, version, body);
  }

  /** What an export up to a day would take. */
  @Get('export-preview')
  async preview(@Query('through') through: string): Promise<ExportPreviewDto> {
    const day = textOf(through);
    return this.queries.preview(isDay(day) ? day : await this.queries.today());
  }

  @Get('exports')
  @Windowed()
  exports(@AskedWindow() window: Window): Promise<JournalExportPageDto> {
    return this.queries.exports(window);
  }

  /** Takes all that has not gone out; the file is had under the number of the export, as often as it is wanted. */
  @Post('exports')
  export(@Acting() act: Act, @Body() body: ExportJournalDto): Promise<CodeDto> {
    return this.journal.export(act, body.through);
  }
}
