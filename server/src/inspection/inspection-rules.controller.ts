import { Body, Controller, Delete, Get, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, IfMatch } from '../platform/index.js';
import { Checklists } from './checklists.service.js';
import { ChecklistDto, InspectionRuleDto, KeptDto, WriteChecklistDto, WriteRuleDto } from './inspection.dto.js';
import { InspectionRules } from './inspection-rules.service.js';

/** Which deliveries are looked at. */
@Controller('api/inspection-rules')
export class InspectionRulesController {
  constructor(private readonly rules: InspectionRules) {}

  @Get()
  @Access('signed-in')
  list(): Promise<InspectionRuleDto[]> {
    return this.rules.list();
  }

  @Post()
  @Access('buy')
  add(@Acting() act: Act, @Body() body: WriteRuleDto): Promise<KeptDto> {
    return this.rules.add(act, body);
  }

  @Put(':id')
  @Access('buy')
  change(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: WriteRuleDto,
  ): Promise<KeptDto> {
    return this.rules.change(act, id, version, body);
  }

  @Delete(':id')
  @Access('buy')
  remove(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<KeptDto> {
    return this.rules.remove(act, id);
  }
}

/** What is looked at. */
@Controller('api/checklists')
export class ChecklistsController {
  constructor(private readonly checklists: Checklists) {}

  @Get()
  @Access('signed-in')
  list(): Promise<ChecklistDto[]> {
    return this.checklists.list();
  }

  @Post()
  @Access('buy')
  add(@Acting() act: Act, @Body() body: WriteChecklistDto): Promise<KeptDto> {
    return this.checklists.add(act, body);
  }

  @Put(':id')
  @Access('buy')
  change(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: WriteChecklistDto,
  ): Promise<KeptDto> {
    return this.checklists.change(act, id, version, body);
  }

  @Delete(':id')
  @Access('buy')
  remove(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<KeptDto> {
    return this.checklists.remove(act, id);
  }
}
