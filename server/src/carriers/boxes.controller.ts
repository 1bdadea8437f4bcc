import { Body, Controller, Get, Param, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { BoxesService } from './boxes.service.js';
import { BoxDto, EditBoxDto, NewBoxDto } from './carriers.dto.js';

@Controller('api/boxes')
export class BoxesController {
  constructor(private readonly service: BoxesService) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person): Promise<BoxDto[]> {
    return this.service.list(person);
  }

  @Get(':code')
  @Access('set-up')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<BoxDto> {
    return this.service.sheet(person, code.toUpperCase());
  }

  @Post()
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: NewBoxDto): Promise<CodeDto> {
    return this.service.add(act, body);
  }

  @Put(':code')
  @Access('set-up')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditBoxDto): Promise<CodeDto> {
    return this.service.edit(act, code.toUpperCase(), version, body);
  }
}
