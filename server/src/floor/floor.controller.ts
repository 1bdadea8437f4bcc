import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import type { TaskKind } from '@vectrum/core/scan';
import { Access } from '../identity/index.js';
import { type Act, Acting, badForm, mustBeAt, type Person, Reader } from '../platform/index.js';
import { BookQueries } from './book.queries.js';
import { AnswerQuestionDto, BookPartDto, BundleDto, FloorAnswerDto, FloorPostDto, QuestionDto } from './floor.dto.js';
import { FloorPost } from './floor-post.service.js';
import { FloorTasks, MOST_ASKED } from './floor-tasks.js';
import { Questions } from './questions.service.js';

const UUID = /^[0-9a-f-]{36}$/i;

/** A version of the book, from a request. */
function versionOf(name: string, text: unknown): number {
  const version = Number(text);
  if (!Number.isSafeInteger(version) || version < 0) throw badForm({ [name]: 'A version is a whole number' });
  return version;
}

@Controller('api/floor')
export class FloorController {
  constructor(
    private readonly tasks: FloorTasks,
    private readonly posts: FloorPost,
    private readonly questions: Questions,
    private readonly books: BookQueries,
  ) {}

  /** One task, for a phone or a packing table. `asked`: ids of commands, joined by commas; those that it shows are named. */
  @Get('tasks/:kind/:key')
  @Access('signed-in')
  @ApiQuery({ name: 'asked', required: false, type: String })
  task(
    @Reader() person: Person,
    @Param('kind') kind: string,
    @Param('key') key: string,
    @Query('asked') asked?: string,
  ): Promise<BundleDto & { kind: TaskKind; task: object }> {
    const ids = (typeof asked === 'string' ? asked : '').split(',').filter((id) => UUID.test(id));
    return this.tasks.read(person, kind, key.toUpperCase().slice(0, 60), ids.slice(0, MOST_ASKED));
  }

  /** Carries out one command of the floor, once, under its id. */
  @Post('commands')
  @Access('signed-in')
  @HttpCode(200)
  command(@Acting() act: Act, @Body() body: FloorPostDto): Promise<FloorAnswerDto> {
    return this.posts.post(act, body);
  }

  /** What has changed in a site's codes since a version, in parts. */
  @Get('book')
  @Access('signed-in')
  @ApiQuery({ name: 'since', required: false, type: String })
  @ApiQuery({ name: 'until', required: false, type: String })
  @ApiQuery({ name: 'after', required: false, type: String })
  book(
    @Reader() person: Person,
    @Query('site') site: string,
    @Query('since') since?: string,
    @Query('until') until?: string,
    @Query('after') after?: string,
  ): Promise<BookPartDto> {
    mustBeAt(person, Number(site));
    const pinned = until === undefined ? null : versionOf('until', until);
    return this.books.part(Number(site), versionOf('since', since ?? '0'), pinned, typeof after === 'string' ? after : null);
  }

  /** What came too late to be booked and waits for an answer. */
  @Get('questions')
  @Access('signed-in')
  open(@Reader() person: Person): Promise<QuestionDto[]> {
    return this.questions.open(person);
  }

  @Post('questions/:id/answer')
  @Access('signed-in')
  @HttpCode(200)
  answer(@Acting() act: Act, @Param('id', ParseUUIDPipe) id: string, @Body() body: AnswerQuestionDto): Promise<FloorAnswerDto> {
    return this.questions.answer(act, id.toLowerCase(), body.answer);
  }
}
