import { Controller, Get, Param } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { AskedWindow, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { InspectionDto, InspectionPageDto } from './inspection.dto.js';
import { InspectionsQueries } from './inspections.queries.js';

@Controller('api/inspections')
export class InspectionsController {
  constructor(private readonly queries: InspectionsQueries) {}

  @Get()
  @Access('signed-in')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<InspectionPageDto> {
    return this.queries.list(person, window);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<InspectionDto> {
    return this.queries.sheet(person, code.toUpperCase());
  }
}
