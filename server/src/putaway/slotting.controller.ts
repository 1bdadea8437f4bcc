import { Controller, Get, Param, ParseIntPipe } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { mustBeAt, type Person, Reader } from '../platform/index.js';
import { SlottingDto } from './slotting.dto.js';
import { SlottingQueries } from './slotting.queries.js';

/** Where goods should stand. */
@Controller('api/sites')
export class SlottingController {
  constructor(private readonly slotting: SlottingQueries) {}

  /** Which goods should change their pick faces, by the walks of the orders of the last weeks, and what lies at a face that is another's. */
  @Get(':siteId/slotting')
  @Access('signed-in')
  at(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<SlottingDto> {
    mustBeAt(person, siteId);
    return this.slotting.at(siteId);
  }
}
