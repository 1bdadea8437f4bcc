import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, IfMatch, type Window, Windowed } from '../platform/index.js';
import { SupplierDocuments } from './supplier-documents.service.js';
import { SetDocumentAsideDto, UnreadDocumentDto, UnreadDocumentPageDto } from './unread-documents.dto.js';
import { UnreadDocuments } from './unread-documents.service.js';

/** What suppliers' systems sent and could not be taken in; for whoever buys, as the orders are that it is about. */
@Controller('api/unread-documents')
@Access('buy')
export class UnreadDocumentsController {
  constructor(
    private readonly unread: UnreadDocuments,
    private readonly documents: SupplierDocuments,
  ) {}

  @Get()
  @Windowed()
  list(@AskedWindow() window: Window): Promise<UnreadDocumentPageDto> {
    return this.unread.list(window);
  }

  @Get(':id')
  sheet(@Param('id', ParseIntPipe) id: number): Promise<UnreadDocumentDto> {
    return this.unread.sheet(id);
  }

  /** Takes it in once more, as it came: what stood in its way may be gone. */
  @Post(':id/take-in')
  @HttpCode(204)
  takeIn(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.documents.takeUnread(act, id, version);
  }

  @Post(':id/set-aside')
  @HttpCode(204)
  setAside(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: SetDocumentAsideDto,
  ): Promise<void> {
    return this.unread.setAside(act, id, version, body.why);
  }
}
