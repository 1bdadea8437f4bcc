import { Controller, Get, HttpCode, Param, Post, Res } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, type Person, Reader } from '../platform/index.js';
import { StatementDto } from './statement.dto.js';
import { StatementQueries } from './statement.queries.js';
import { Statements } from './statements.js';

/** What customers with an account owe. */
@Controller('api/statements')
@Access('invoices')
export class StatementsController {
  constructor(
    private readonly queries: StatementQueries,
    private readonly statements: Statements,
  ) {}

  @Get(':account')
  of(@Reader() person: Person, @Param('account') account: string): Promise<StatementDto> {
    return this.queries.of(person, account);
  }

  @Get(':account/pdf')
  @ApiOkResponse({ content: { 'application/pdf': {} } })
  async pdf(@Res() response: Response, @Reader() person: Person, @Param('account') account: string): Promise<void> {
    const paper = await this.statements.pdf(person, account);
    response.type('application/pdf').setHeader('content-disposition', `inline; filename="statement-${encodeURIComponent(account)}.pdf"`);
    response.send(paper);
  }

  /** Mails it to the customer. */
  @Post(':account/send')
  @HttpCode(204)
  send(@Acting() act: Act, @Param('account') account: string): Promise<void> {
    return this.statements.send(act, account);
  }
}
