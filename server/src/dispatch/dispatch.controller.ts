import { Body, Controller, Get, HttpCode, Param, Post, StreamableFile } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { DispatchTroubleDto, HandedOverDto, HandOverDto, HandOverPageDto, LaneDto } from './dispatch.dto.js';
import { ConsignmentsService } from './consignments.service.js';
import { HandOverService } from './hand-over.service.js';
import { LabelsQueries } from './labels.queries.js';
import { LanesQueries } from './lanes.queries.js';

@Controller('api/dispatch')
export class DispatchController {
  constructor(
    private readonly queries: LanesQueries,
    private readonly labels: LabelsQueries,
    private readonly handOvers: HandOverService,
    private readonly consignments: ConsignmentsService,
  ) {}

  @Get('lanes')
  @Access('signed-in')
  lanes(@Reader() person: Person): Promise<LaneDto[]> {
    return this.queries.lanes(person.siteIds);
  }

  /** What stands in no lane, and what has missed its van. */
  @Get('trouble')
  @Access('signed-in')
  async trouble(@Reader() person: Person): Promise<DispatchTroubleDto> {
    const [unrouted, missed] = await Promise.all([this.queries.unrouted(person.siteIds), this.queries.missed(person.siteIds)]);
    return { unrouted, missed };
  }

  /** What went, newest first. */
  @Get('hand-overs')
  @Access('signed-in')
  @Windowed()
  gone(@Reader() person: Person, @AskedWindow() window: Window): Promise<HandOverPageDto> {
    return this.handOvers.page(person.siteIds, window);
  }

  @Get('parcels/:code/label')
  @Access('signed-in')
  async label(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.labels.label(code.toUpperCase(), person.siteIds), {
      type: 'application/pdf',
      disposition: `inline; filename="${code}.pdf"`,
    });
  }

  /** The list of a hand-over, signed or for the driver to sign. */
  @Get('hand-overs/:code/list')
  @Access('signed-in')
  async list(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.handOvers.list(code.toUpperCase(), person), { type: 'application/pdf' });
  }

  /** The consignment notes of a hand-over, one for each consignee. */
  @Get('hand-overs/:code/consignment-notes')
  @Access('signed-in')
  async notes(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.consignments.notes(code.toUpperCase(), person), { type: 'application/pdf' });
  }

  @Post('hand-overs')
  @Access('dispatch')
  @HttpCode(200)
  handOver(@Acting() act: Act, @Body() body: HandOverDto): Promise<HandedOverDto> {
    return this.handOvers.handOver(act, body);
  }
}
