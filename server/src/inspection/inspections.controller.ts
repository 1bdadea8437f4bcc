import { Controller, Get, Param } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Person, Reader } from '../platform/index.js';
import { InspectionDto, InspectionRowDto } from './inspection.dto.js';
import { InspectionsQueries } from './inspections.queries.js';

@Controller('api/inspections')
export class InspectionsController {
  constructor(private readonly queries: InspectionsQueries) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person): Promise<InspectionRowDto[]> {
    return this.queries.list(person);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<InspectionDto> {
    return this.queries.sheet(person, code.toUpperCase());
  }
}
