import { Body, Controller, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { type Act, Acting } from '../platform/index.js';
import { Access } from './access.js';
import { AgreeDto } from './identity.dto.js';
import { PersonChanges } from './person-changes.service.js';

@Controller('api')
export class PersonChangesController {
  constructor(private readonly changes: PersonChanges) {}

  /** Agrees to what was asked to be changed of somebody, or refuses it. */
  @Post('people/:id/change')
  @Access('set-up')
  @HttpCode(204)
  answer(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Body() body: AgreeDto): Promise<void> {
    return this.changes.answer(act, id, body.agree);
  }

  /** Answers what was asked to be changed of oneself. */
  @Post('session/change')
  @Access('signed-in')
  @HttpCode(204)
  answerOwn(@Acting() act: Act, @Body() body: AgreeDto): Promise<void> {
    return this.changes.answer(act, act.person.id, body.agree);
  }
}
