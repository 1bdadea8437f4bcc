import { Body, Controller, Get, Param, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { ChannelDto, ChannelSecretDto, ChannelSheetDto, EditChannelDto, NewChannelDto } from './channels.dto.js';
import { ChannelsService } from './channels.service.js';

@Controller('api/channels')
export class ChannelsController {
  constructor(private readonly service: ChannelsService) {}

  @Get()
  @Access('order-desk', 'set-up')
  list(@Reader() person: Person): Promise<ChannelDto[]> {
    return this.service.list(person);
  }

  @Get(':code')
  @Access('order-desk', 'set-up')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<ChannelSheetDto> {
    return this.service.sheet(person, code.toUpperCase());
  }

  @Post()
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: NewChannelDto): Promise<CodeDto> {
    return this.service.add(act, body);
  }

  /** A new secret for the channel to sign with; shown this once. */
  @Post(':code/secret')
  @Access('set-up')
  giveSecret(@Acting() act: Act, @Param('code') code: string): Promise<ChannelSecretDto> {
    return this.service.giveSecret(act, code.toUpperCase());
  }

  @Put(':code')
  @Access('set-up')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditChannelDto): Promise<CodeDto> {
    return this.service.edit(act, code.toUpperCase(), version, body);
  }
}
