import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { MendDto, ParkedDto, ParkedPageDto, SetAsideDto } from './parked.dto.js';
import { MendingService } from './mending.service.js';
import { ParkedMessages } from './parked-messages.js';

/** Messages of channels that could not be understood. */
@Controller('api/parked-messages')
export class ParkedController {
  constructor(
    private readonly parked: ParkedMessages,
    private readonly mending: MendingService,
  ) {}

  @Get()
  @Access('order-desk')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<ParkedPageDto> {
    return this.parked.list(person.siteIds, window);
  }

  @Get(':id')
  @Access('order-desk')
  sheet(@Reader() person: Person, @Param('id', ParseIntPipe) id: number): Promise<ParkedDto> {
    return this.parked.sheet(id, person.siteIds);
  }

  @Post(':id/take-in')
  @Access('order-desk')
  @HttpCode(200)
  mend(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number, @Body() body: MendDto): Promise<CodeDto> {
    return this.mending.mend(act, id, version, body.text);
  }

  @Post(':id/set-aside')
  @Access('order-desk')
  @HttpCode(204)
  setAside(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: SetAsideDto,
  ): Promise<void> {
    return this.parked.setAside(act, id, version, body.why);
  }
}
