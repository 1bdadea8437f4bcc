import { Body, Controller, Get, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js';
import { InvoicePapers } from './invoice-papers.js';
import { INVOICE_SHOWS, InvoicesQueries } from './invoices.queries.js';
import { InvoicesService } from './invoices.service.js';
import { CreditInvoiceDto, InvoiceDto, InvoiceOrdersDto, InvoicePageDto, OpenOrderPageDto, PreviewDto } from './invoicing.dto.js';
import { PaymentsService } from './payments.service.js';

/** What customers are invoiced and credited. */
@Controller('api/invoices')
@Access('invoices')
export class InvoicesController {
  constructor(
    private readonly queries: InvoicesQueries,
    private readonly invoices: InvoicesService,
    private readonly papers: InvoicePapers,
    private readonly payments: PaymentsService,
  ) {}

  @Get()
  @Windowed()
  @ApiQuery({ name: 'show', required: false, enum: INVOICE_SHOWS })
  @ApiQuery({ name: 'search', required: false, type: String })
  list(
    @Reader() person: Person,
    @AskedWindow() window: Window,
    @Query('show') show?: string,
    @Query('search') search?: string,
  ): Promise<InvoicePageDto> {
    return this.queries.list(person.siteIds, INVOICE_SHOWS.find((s) => s === show) ?? 'all', textOf(search), window);
  }

  /** Orders of which something was delivered and is not invoiced. */
  @Get('open')
  @Windowed()
  open(@Reader() person: Person, @AskedWindow() window: Window): Promise<OpenOrderPageDto> {
    return this.queries.open(person.siteIds, window);
  }

  /** What an invoice over orders would say; nothing is written. */
  @Post('preview')
  @HttpCode(200)
  preview(@Reader() person: Person, @Body() body: InvoiceOrdersDto): Promise<PreviewDto> {
    return this.queries.preview(person.siteIds, body);
  }

  /** Invoices what was delivered of orders of one customer, in one document with the next number. */
  @Post()
  make(@Acting() act: Act, @Body() body: InvoiceOrdersDto): Promise<CodeDto> {
    return this.invoices.invoice(act, body);
  }

  /** What an order will come to, as a paper. */
  @Get('proforma/:order')
  @Access('invoices', 'order-desk')
  @ApiOkResponse({ content: { 'application/pdf': {} } })
  async proforma(@Res() response: Response, @Reader() person: Person, @Param('order') order: string): Promise<void> {
    const paper = await this.papers.proforma(person, order.toUpperCase());
    response
      .type('application/pdf')
      .setHeader('content-disposition', `inline; filename="proforma-${encodeURIComponent(order.toUpperCase())}.pdf"`);
    response.send(paper);
  }

  @Get(':code')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<InvoiceDto> {
    return this.queries.sheet(code.toUpperCase(), person.siteIds);
  }

  @Get(':code/pdf')
  @ApiOkResponse({ content: { 'application/pdf': {} } })
  async pdf(@Res() response: Response, @Reader() person: Person, @Param('code') code: string): Promise<void> {
    const invoice = await this.queries.sheet(code.toUpperCase(), person.siteIds);
    response.type('application/pdf').setHeader('content-disposition', `inline; filename="${invoice.code}.pdf"`);
    response.send(await this.papers.pdf(invoice));
  }

  /** The document as UBL 2.1. */
  @Get(':code/xml')
  @ApiOkResponse({ content: { 'application/xml': {} } })
  async xml(@Res() response: Response, @Reader() person: Person, @Param('code') code: string): Promise<void> {
    const invoice = await this.queries.sheet(code.toUpperCase(), person.siteIds);
    response.type('application/xml').setHeader('content-disposition', `attachment; filename="${invoice.code}.xml"`);
    response.send(await this.papers.xml(invoice));
  }

  /** Takes lines of an invoice back, or a part of their units, by a credit note. */
  @Post(':code/credit')
  credit(@Acting() act: Act, @Param('code') code: string, @Body() body: CreditInvoiceDto): Promise<CodeDto> {
    return this.invoices.credit(act, code.toUpperCase(), body);
  }

  @Post(':code/send')
  @HttpCode(204)
  send(@Acting() act: Act, @Param('code') code: string): Promise<void> {
    return this.invoices.send(act, code.toUpperCase());
  }

  /** Says that what is left of an invoice in another currency is what the rate has done since. */
  @Post(':code/exchange-difference')
  @HttpCode(200)
  differ(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.payments.differ(act, code);
  }

  /** Notes that what a credit note holds for the customer was paid back. */
  @Post(':code/paid-back')
  @HttpCode(200)
  payBack(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.payments.payBack(act, code);
  }
}
