import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { Access, OfCosts } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { BillDto, BillRowDto, EnterBillDto, OpenToBillDto, SettleBillDto } from './bills.dto.js';
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
  list(@Reader() person: Person): Promise<BillRowDto[]> {
    return this.queries.list(person.siteIds);
  }

  /** What has come from a supplier and is not billed yet. */
  @Get('open')
  @Access('bills')
  open(@Reader() person: Person, @Query('supplier') supplier: string): Promise<OpenToBillDto> {
    return this.queries.open(String(supplier).toUpperCase(), person.siteIds);
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
