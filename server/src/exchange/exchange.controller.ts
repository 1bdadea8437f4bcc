import { Body, Controller, Get, HttpCode, Param, Post, Put, Query, Req, Res } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { ApplyDto, ImportDto, ImportIdDto, ImportKindDto, ImportPageDto, MapColumnsDto, MendImportDto } from './exchange.dto.js';
import { ExportsService } from './exports.service.js';
import { fileKind } from './file-kind.js';
import { ImportsQueries } from './imports.queries.js';
import { MendingService } from './mending.service.js';
import { ImportsService } from './imports.service.js';

const File = ApiOkResponse({ content: { 'text/csv': {} } });

@Controller('api/imports')
export class ImportsController {
  constructor(
    private readonly imports: ImportsService,
    private readonly queries: ImportsQueries,
    private readonly mending: MendingService,
    private readonly exports: ExportsService,
  ) {}

  /** The body is the file itself, CSV or XLSX; `name` says what it is called. */
  @Post()
  @Access('items', 'buy', 'order-desk', 'set-up')
  @ApiQuery({ name: 'kind', required: false, type: String })
  read(@Acting() act: Act, @Req() request: Request, @Query('name') name: string, @Query('kind') kind?: string): Promise<ImportIdDto> {
    return this.imports.read(act, request, String(name ?? ''), String(kind ?? ''));
  }

  @Get()
  @Access('items', 'buy', 'order-desk', 'set-up')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<ImportPageDto> {
    return this.queries.list(person, window);
  }

  @Get('kinds')
  @Access('signed-in')
  kinds(@Reader() person: Person): Promise<ImportKindDto[]> {
    return this.queries.kinds(person);
  }

  @Get(':id')
  @Access('items', 'buy', 'order-desk', 'set-up')
  one(@Reader() person: Person, @Param('id') id: string): Promise<ImportDto> {
    return this.queries.one(person, id);
  }

  /** The faulty rows, with what is wrong with each, to be mended and taken in again. */
  @Get(':id/faulty.:kind')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @File
  async faulty(@Reader() person: Person, @Res() response: Response, @Param('id') id: string, @Param('kind') kind: string): Promise<void> {
    const table = await this.queries.faultyRows(person, id);
    await this.exports.send(response, { name: 'faulty-rows', ...table }, fileKind(kind));
  }

  /** Says what the columns hold, and has the rows checked. */
  @Put(':id/columns')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @HttpCode(204)
  map(@Acting() act: Act, @Param('id') id: string, @Body() body: MapColumnsDto): Promise<void> {
    return this.imports.map(act, id, body);
  }

  /** Says what faulty cells are to be read as, and has the rows checked once more. */
  @Post(':id/mend')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @HttpCode(204)
  mend(@Acting() act: Act, @Param('id') id: string, @Body() body: MendImportDto): Promise<void> {
    return this.mending.mend(act, id, body);
  }

  /** The rows that were left out, as an import of their own. */
  @Post(':id/rest')
  @Access('items', 'buy', 'order-desk', 'set-up')
  rest(@Acting() act: Act, @Param('id') id: string): Promise<ImportIdDto> {
    return this.mending.rest(act, id);
  }

  @Post(':id/apply')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @HttpCode(204)
  apply(@Acting() act: Act, @Param('id') id: string, @Body() body: ApplyDto): Promise<void> {
    return this.imports.apply(act, id, body.goodRowsOnly);
  }

  /** Takes the whole import back, while nothing depends on it. */
  @Post(':id/undo')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @HttpCode(204)
  undo(@Acting() act: Act, @Param('id') id: string): Promise<void> {
    return this.imports.undo(act, id);
  }
}

@Controller('api/exports')
export class ExportsController {
  constructor(private readonly exports: ExportsService) {}

  /** What a list shows, with the filter it is shown with. */
  @Get('lists/:name.:kind')
  @Access('signed-in')
  @File
  async list(
    @Reader() person: Person,
    @Res() response: Response,
    @Param('name') name: string,
    @Param('kind') kind: string,
    @Query() query: Record<string, string>,
  ): Promise<void> {
    const file = fileKind(kind);
    await this.exports.send(response, await this.exports.list(person, name, query), file);
  }

  /** Everything of every kind that this person may take in, as CSV files in one archive. */
  @Get('everything.zip')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @ApiOkResponse({ content: { 'application/zip': {} } })
  everything(@Reader() person: Person, @Res() response: Response): Promise<void> {
    return this.exports.sendAll(response, person);
  }

  /** Everything of one kind, as it would be taken in again. */
  @Get('data/:name.:kind')
  @Access('items', 'buy', 'order-desk', 'set-up')
  @File
  async data(@Reader() person: Person, @Res() response: Response, @Param('name') name: string, @Param('kind') kind: string): Promise<void> {
    const file = fileKind(kind);
    await this.exports.send(response, await this.exports.shape(person, name), file);
  }
}
