import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, IdDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { BuyingRuleDto, KeepBuyingRuleDto, KeepMarkDto, MarkDto } from './rules.dto.js';
import { RulesService } from './rules.service.js';

/** How goods are bought, and weeks that are not as usual. */
@Controller('api/buying')
@Access('buy')
export class RulesController {
  constructor(private readonly rules: RulesService) {}

  @Get('rules')
  list(@Reader() person: Person): Promise<BuyingRuleDto[]> {
    return this.rules.list(person);
  }

  @Post('rules')
  add(@Acting() act: Act, @Body() body: KeepBuyingRuleDto): Promise<IdDto> {
    return this.rules.keep(act, body);
  }

  @Put('rules/:id')
  @HttpCode(200)
  change(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: KeepBuyingRuleDto,
  ): Promise<IdDto> {
    return this.rules.keep(act, body, { id, version });
  }

  @Delete('rules/:id')
  drop(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.rules.drop(act, id, version);
  }

  @Get('marks')
  marks(@Reader() person: Person): Promise<MarkDto[]> {
    return this.rules.marks(person);
  }

  /** Marks weeks in which demand is not as usual: a campaign, a price, a strike. */
  @Post('marks')
  mark(@Acting() act: Act, @Body() body: KeepMarkDto): Promise<IdDto> {
    return this.rules.mark(act, body);
  }

  @Delete('marks/:id')
  unmark(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.rules.unmark(act, id, version);
  }
}
