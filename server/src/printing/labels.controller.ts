import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Res } from '@nestjs/common';
import { ApiBody, ApiOkResponse } from '@nestjs/swagger';
import type { Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, IfMatch, type Many, ManyPipe, type Person, Reader } from '../platform/index.js';
import {
  DesignDto,
  DesignIdDto,
  EditDesignDto,
  EditPrinterDto,
  MOST_LABELS,
  PrintedDto,
  PrinterDto,
  PrinterIdDto,
  PrintLabelsDto,
  PrintPaperDto,
  TrayRowDto,
} from './labels.dto.js';
import { LabelsService } from './labels.service.js';
import { Papers } from './papers.js';

const Pdf = ApiOkResponse({ content: { 'application/pdf': {} } });
const sendPdf = (response: Response, pdf: Buffer) =>
  response.status(200).type('application/pdf').setHeader('cache-control', 'no-store').send(pdf);

const isText = (value: unknown, most: number) => typeof value === 'string' && value.length <= most;
const isAbsent = (value: unknown) => value === undefined || value === null;
const KEYS = new Set(['code', 'holds', 'lot', 'expires']);
/** Labels by the thousand, where each is as plain as most are. */
const MANY = new ManyPipe(
  PrintLabelsDto,
  'labels',
  MOST_LABELS,
  (l) =>
    isText(l['code'], 60) &&
    l['code'] !== '' &&
    (isAbsent(l['holds']) || (Number.isInteger(l['holds']) && Number(l['holds']) > 0)) &&
    (isAbsent(l['lot']) || isText(l['lot'], 40)) &&
    (isAbsent(l['expires']) || (isText(l['expires'], 10) && /^(\d{4}-\d{2}-\d{2})?$/.test(String(l['expires'])))) &&
    Object.keys(l).every((key) => KEYS.has(key)),
);

@Controller('api/labels')
export class LabelsController {
  constructor(
    private readonly labels: LabelsService,
    private readonly papers: Papers,
  ) {}

  @Get('designs')
  @Access('signed-in')
  designs(): Promise<DesignDto[]> {
    return this.labels.designs();
  }

  @Post('designs')
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: EditDesignDto): Promise<DesignIdDto> {
    return this.labels.add(act, body);
  }

  @Put('designs/:id')
  @Access('set-up')
  @HttpCode(204)
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number, @Body() body: EditDesignDto): Promise<void> {
    return this.labels.edit(act, id, version, body);
  }

  @Delete('designs/:id')
  @Access('set-up')
  @HttpCode(204)
  drop(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.labels.drop(act, id);
  }

  /** The design as it would be printed, with samples in its fields. */
  @Post('sample')
  @Access('signed-in')
  @Pdf
  async sample(@Res() response: Response, @Body() body: EditDesignDto): Promise<void> {
    sendPdf(response, await this.labels.sample(body));
  }

  /** Labels of records as a PDF. */
  @Post('pdf')
  @Access('signed-in')
  @Pdf
  @ApiBody({ type: PrintLabelsDto })
  async pdf(@Reader() person: Person, @Res() response: Response, @Body(MANY) body: Many<PrintLabelsDto>): Promise<void> {
    sendPdf(response, await this.labels.pdf(person, body));
  }

  /** Labels of records to a printer, through the outbox. */
  @Post('print')
  @Access('signed-in')
  @ApiBody({ type: PrintLabelsDto })
  print(@Acting() act: Act, @Body(MANY) body: Many<PrintLabelsDto>): Promise<PrintedDto> {
    return this.labels.print(act, body);
  }

  /** A paper of a document to a printer: invoice, proforma, statement, delivery-note or return-slip. */
  @Post('papers')
  @Access('signed-in')
  printPaper(@Acting() act: Act, @Body() body: PrintPaperDto): Promise<PrintedDto> {
    return this.papers.print(act, body);
  }

  @Get('tray')
  @Access('signed-in')
  tray(@Reader() person: Person): Promise<TrayRowDto[]> {
    return this.labels.tray(person.siteIds);
  }

  @Get('printers')
  @Access('signed-in')
  printers(@Reader() person: Person): Promise<PrinterDto[]> {
    return this.labels.printers(person.siteIds);
  }

  @Post('printers')
  @Access('set-up')
  addPrinter(@Acting() act: Act, @Body() body: EditPrinterDto): Promise<PrinterIdDto> {
    return this.labels.keepPrinter(act, null, 0, body);
  }

  @Put('printers/:id')
  @Access('set-up')
  editPrinter(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: EditPrinterDto,
  ): Promise<PrinterIdDto> {
    return this.labels.keepPrinter(act, id, version, body);
  }
}
