import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, IfMatch } from '../platform/index.js';
import { EditInsertRuleDto, InsertRulesDto } from './insert-rules.dto.js';
import { InsertRules } from './insert-rules.service.js';

/** What goes along with orders by rule. */
@Controller('api/inserts')
@Access('set-up')
export class InsertRulesController {
  constructor(private readonly inserts: InsertRules) {}

  @Get()
  list(): Promise<InsertRulesDto> {
    return this.inserts.list();
  }

  @Post()
  async add(@Acting() act: Act, @Body() body: EditInsertRuleDto): Promise<void> {
    await this.inserts.add(act, body);
  }

  @Put(':id')
  @HttpCode(204)
  async edit(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: EditInsertRuleDto,
  ): Promise<void> {
    await this.inserts.edit(act, id, version, body);
  }

  @Delete(':id')
  @HttpCode(204)
  drop(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.inserts.drop(act, id);
  }
}
