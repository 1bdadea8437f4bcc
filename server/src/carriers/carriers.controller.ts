import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Problem, Reader } from '../platform/index.js';
import { CarrierDesk } from './carrier-desk.js';
import { CarrierDto, CarrierSheetDto, EditCarrierDto, NewCarrierDto, TriedCarrierDto, TryCarrierDto } from './carriers.dto.js';
import { CarriersQueries } from './carriers.queries.js';
import { CarriersService } from './carriers.service.js';

@Controller('api/carriers')
export class CarriersController {
  constructor(
    private readonly queries: CarriersQueries,
    private readonly service: CarriersService,
    private readonly desk: CarrierDesk,
  ) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person): Promise<CarrierDto[]> {
    return this.queries.list(person);
  }

  @Get(':code')
  @Access('set-up')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<CarrierSheetDto> {
    return this.queries.sheet(person, code.toUpperCase());
  }

  @Post()
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: NewCarrierDto): Promise<CodeDto> {
    return this.service.add(act, body);
  }

  /** Asks the carrier for prices of an imagined parcel; nothing is sent and nothing kept. */
  @Post(':code/try')
  @Access('set-up')
  @HttpCode(200)
  async attempt(@Param('code') code: string, @Body() body: TryCarrierDto): Promise<TriedCarrierDto> {
    try {
      return { rates: await this.desk.attempt(code.toUpperCase(), body) };
    } catch (thrown) {
      if (thrown instanceof Problem) throw thrown;
      throw new Problem(502, 'carrier', `The carrier’s system says: ${thrown instanceof Error ? thrown.message : 'no answer'}`);
    }
  }

  @Put(':code')
  @Access('set-up')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditCarrierDto): Promise<CodeDto> {
    return this.service.edit(act, code.toUpperCase(), version, body);
  }
}
