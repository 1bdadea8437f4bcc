import { Body, Controller, Delete, Get, HttpCode, Param, Put, Req, Res } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, IfMatch, readBody } from '../platform/index.js';
import { LetterDto, WriteLetterDto } from './letters.dto.js';
import { CompanyLetters } from './company-letters.js';
import { MarkService, MOST_MARK_BYTES } from './mark.service.js';

/** The company's words and mark on what it sends to customers. */
@Controller('api')
export class LettersController {
  constructor(
    private readonly letters: CompanyLetters,
    private readonly marks: MarkService,
  ) {}

  @Get('letters')
  @Access('set-up')
  list(): Promise<LetterDto[]> {
    return this.letters.list();
  }

  @Get('letters/:name')
  @Access('set-up')
  letter(@Param('name') name: string): Promise<LetterDto> {
    return this.letters.named(name);
  }

  @Put('letters/:name')
  @Access('set-up')
  @HttpCode(204)
  write(@Acting() act: Act, @IfMatch() version: number, @Param('name') name: string, @Body() body: WriteLetterDto): Promise<void> {
    return this.letters.write(act, name, version, body);
  }

  /** The words that it came with. */
  @Delete('letters/:name')
  @Access('set-up')
  @HttpCode(204)
  restore(@Acting() act: Act, @Param('name') name: string): Promise<void> {
    return this.letters.restore(act, name);
  }

  @Get('mark')
  @Access('signed-in')
  @ApiOkResponse({ content: { 'image/png': {} } })
  @ApiNoContentResponse({ description: 'The company has no mark' })
  async mark(@Res() response: Response): Promise<void> {
    const picture = await this.marks.read();
    if (picture) response.type('image/png').send(picture);
    else response.status(204).end();
  }

  /** The body is the picture file itself: JPEG, PNG or WebP. */
  @Put('mark')
  @Access('set-up')
  @HttpCode(204)
  async keep(@Acting() act: Act, @Req() request: Request): Promise<void> {
    await this.marks.keep(act, await readBody(request, MOST_MARK_BYTES));
  }

  @Delete('mark')
  @Access('set-up')
  @HttpCode(204)
  drop(@Acting() act: Act): Promise<void> {
    return this.marks.drop(act);
  }
}
