import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, AtSites, IfMatch, type Person, Reader } from '../platform/index.js';
import { EditScaleDto, ReadingDto, ScaleDto, ScaleIdDto } from './weighing.dto.js';
import { WeighingService } from './weighing.service.js';

@Controller('api/scales')
export class WeighingController {
  constructor(private readonly weighing: WeighingService) {}

  @Get()
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  scales(@AtSites() siteIds: readonly number[]): Promise<ScaleDto[]> {
    return this.weighing.list(siteIds);
  }

  /** What lies on a scale now; 503 where it does not answer. */
  @Get(':id/reading')
  @Access('pack')
  reading(@Reader() person: Person, @Param('id', ParseIntPipe) id: number): Promise<ReadingDto> {
    return this.weighing.read(person, id);
  }

  @Post()
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: EditScaleDto): Promise<ScaleIdDto> {
    return this.weighing.keep(act, null, 0, body);
  }

  @Put(':id')
  @Access('set-up')
  edit(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: EditScaleDto,
  ): Promise<ScaleIdDto> {
    return this.weighing.keep(act, id, version, body);
  }

  @Delete(':id')
  @Access('set-up')
  @HttpCode(204)
  drop(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.weighing.drop(act, id);
  }
}
