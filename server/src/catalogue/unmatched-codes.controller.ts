import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { MatchCodeDto, UnmatchedCodePageDto } from './unmatched-codes.dto.js';
import { UnmatchedCodes } from './unmatched-codes.service.js';

/** Codes that the floor could not make anything of, for whoever keeps items. */
@Controller('api/unmatched-codes')
@Access('items')
export class UnmatchedCodesController {
  constructor(private readonly codes: UnmatchedCodes) {}

  @Get()
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<UnmatchedCodePageDto> {
    return this.codes.list(person.siteIds, window);
  }

  @Post(':id/match')
  match(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Body() body: MatchCodeDto): Promise<CodeDto> {
    return this.codes.match(act, id, body);
  }

  @Post(':id/set-aside')
  @HttpCode(204)
  setAside(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.codes.setAside(act, id);
  }
}
