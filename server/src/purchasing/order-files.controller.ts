import { Controller, Delete, Get, Header, HttpCode, Param, ParseIntPipe, Post, Query, Req, StreamableFile } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Request } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, type Person, readBody, Reader } from '../platform/index.js';
import { MOST_FILE_BYTES, OrderFiles } from './order-files.service.js';
import { KeptFileDto } from './purchasing.dto.js';

/** Files kept with purchase orders. */
@Controller('api')
export class OrderFilesController {
  constructor(private readonly files: OrderFiles) {}

  /** A file kept with an order, as it came. */
  @Get('order-files/:id')
  @Access('signed-in')
  @Header('x-content-type-options', 'nosniff')
  @ApiOkResponse({ content: { 'application/octet-stream': {} } })
  async file(@Reader() person: Person, @Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    const { name, content } = await this.files.read(person, id);
    const plain = name.replace(/[^\x20-\x7e]/g, '_');
    return new StreamableFile(content, {
      type: 'application/octet-stream',
      disposition: `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    });
  }

  /** The body is the file itself; its name is in the query. */
  @Post('purchase-orders/:code/files')
  @Access('buy')
  async addFile(
    @Acting() act: Act,
    @Param('code') code: string,
    @Query('name') name: string,
    @Req() request: Request,
  ): Promise<KeptFileDto> {
    return this.files.add(act, code.toUpperCase(), String(name ?? ''), await readBody(request, MOST_FILE_BYTES));
  }

  @Delete('order-files/:id')
  @Access('buy')
  @HttpCode(204)
  removeFile(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.files.remove(act, id);
  }
}
