import { Body, Controller, Get, HttpCode, Param, Post, StreamableFile } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, type Person, Reader } from '../platform/index.js';
import { HandedOverDto, HandOverDto, LaneDto } from './dispatch.dto.js';
import { DispatchService } from './dispatch.service.js';

@Controller('api/dispatch')
export class DispatchController {
  constructor(private readonly dispatch: DispatchService) {}

  @Get('lanes')
  @Access('signed-in')
  lanes(@Reader() person: Person): Promise<LaneDto[]> {
    return this.dispatch.lanes(person.siteIds);
  }

  @Get('parcels/:code/label')
  @Access('signed-in')
  async label(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.dispatch.label(code.toUpperCase(), person.siteIds), {
      type: 'application/pdf',
      disposition: `inline; filename="${code}.pdf"`,
    });
  }

  /** The list of a hand-over, for the driver to sign. */
  @Get('hand-overs/:code/list')
  @Access('signed-in')
  async list(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.dispatch.list(code.toUpperCase(), person), { type: 'application/pdf' });
  }

  @Post('hand-overs')
  @Access('dispatch')
  @HttpCode(200)
  handOver(@Acting() act: Act, @Body() body: HandOverDto): Promise<HandedOverDto> {
    return this.dispatch.handOver(act, body);
  }
}
