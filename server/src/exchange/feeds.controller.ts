import { Body, Controller, Delete, Get, Headers, Param, ParseIntPipe, Post, Query, Res } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, IdDto, type Person, Reader } from '../platform/index.js';
import { ExportsService } from './exports.service.js';
import { FeedKeys } from './feed-keys.service.js';
import { FeedKeyDto, NameFeedKeyDto, NewFeedKeyDto } from './feeds.dto.js';
import { fileKind } from './file-kind.js';

/** Lists for other programs, read with a key. */
@Controller('api/feeds')
export class FeedsController {
  constructor(
    private readonly keys: FeedKeys,
    private readonly exports: ExportsService,
  ) {}

  @Get('keys')
  @Access('signed-in')
  list(@Reader() person: Person): Promise<FeedKeyDto[]> {
    return this.keys.list(person);
  }

  /** Makes a key that sees what its maker sees. */
  @Post('keys')
  @Access('signed-in')
  add(@Acting() act: Act, @Body() body: NameFeedKeyDto): Promise<NewFeedKeyDto> {
    return this.keys.add(act, body.name);
  }

  @Delete('keys/:id')
  @Access('signed-in')
  drop(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.keys.drop(act, id);
  }

  /** The figures of the day in one archive of CSV files: for whoever sends a key as `Authorization: Bearer`, what its maker may read. */
  @Get('day.zip')
  @Access('public')
  @ApiOkResponse({ content: { 'application/zip': {} } })
  async day(@Headers('authorization') header: string | undefined, @Res() response: Response): Promise<void> {
    await this.exports.sendDay(response, await this.keys.personOf(header));
  }

  /** A list as CSV, XLSX or JSON, with the filter that its page has, for whoever sends a key as `Authorization: Bearer`. */
  @Get('lists/:name.:kind')
  @Access('public')
  @ApiOkResponse({ content: { 'text/csv': {}, 'application/json': {} } })
  async feed(
    @Headers('authorization') header: string | undefined,
    @Res() response: Response,
    @Param('name') name: string,
    @Param('kind') kind: string,
    @Query() query: Record<string, string>,
  ): Promise<void> {
    const person = await this.keys.personOf(header);
    const file = fileKind(kind);
    await this.exports.send(response, await this.exports.list(person, name, query), file);
  }
}
