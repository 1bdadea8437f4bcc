import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js';
import { BillDto, BillPageDto, EnterBillDto, OpenToBillDto, SettleBillDto } from './bills.dto.js';
import { BillsQueries } from './bills.queries.js';
import { BillsService } from './bills.service.js';

@Controller('api/bills')
@OfCosts()
export class BillsController {
  constructor(
    private readonly queries: BillsQueries,
    private readonly bills: BillsService,
  ) {}

  @Get()
  @Access('bills')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<BillPageDto> {
    return this.queries.list(person.siteIds, window);
  }

  /** What has come from a supplier and is not billed yet. */
  @Get('open')
  @Access('bills')
  @ApiQuery({ name: 'order', required: false, type: String })
  open(@Reader() person: Person, @Query('supplier') supplier: string, @Query('order') order?: string): Promise<OpenToBillDto> {
    return this.queries.open(textOf(supplier).toUpperCase(), person.siteIds, textOf(order, 20).toUpperCase());
  }

  @Get(':code')
  @Access('bills')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<BillDto> {
    return this.queries.sheet(code.toUpperCase(), person.siteIds);
  }

  /** Enters a bill; one that fits order and arrival is posted at once. */
  @Post()
  @Access('bills')
  enter(@Acting() act: Act, @Body() body: EnterBillDto): Promise<CodeDto> {
    return this.bills.enter(act, body);
  }

  /** Posts a bill that differs, or asks the supplier about it. */
  @Post(':code/settle')
  @Access('bills')
  @HttpCode(200)
  settle(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SettleBillDto): Promise<CodeDto> {
    return this.bills.settle(act, code.toUpperCase(), version, body);
  }
}
