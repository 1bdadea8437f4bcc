import { Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Access } from '../identity/index.js';
import {
  type Act,
  Acting,
  AskedWindow,
  CommandLog,
  notFound,
  one,
  Outbox,
  pageOf,
  type Person,
  Reader,
  type Window,
  Windowed,
} from '../platform/index.js';
import { OutboxPageDto, type OutboxRowDto } from './outbox.dto.js';

const WITHIN = '(site_id IN (?) OR (site_id IS NULL AND ? = 1))';
const withinOf = (person: Person): unknown[] => [[0, ...person.siteIds], person.isOwner ? 1 : 0];

const FIELDS = 'id, receiver, kind, document, state, attempts, next_at AS nextAt, last_error AS lastError, created_at AS createdAt';
/** Of what has left, so many are looked back at. */
const NEWEST = 2_000;

@Controller('api/outbox')
export class OutboxController {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly commands: CommandLog,
  ) {}

  /** What waits to leave the building from the person's sites, and the newest two thousand of what has left; an owner reads of the whole house too. */
  @Get()
  @Access('set-up')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<OutboxPageDto> {
    const list = {
      select: '*',
      from: `FROM (SELECT ${FIELDS} FROM outbox WHERE state <> 'done' AND ${WITHIN} UNION ALL (SELECT ${FIELDS} FROM outbox WHERE state = 'done' AND ${WITHIN} ORDER BY id DESC LIMIT ${NEWEST})) o`,
      params: [...withinOf(person), ...withinOf(person)],
      order: `state = 'done', id DESC`,
    };
    return pageOf<OutboxRowDto>(this.source, list, window);
  }

  @Post(':id/retry')
  @Access('set-up')
  @HttpCode(204)
  retry(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.commands.run(act, 'outbox.retry', { id }, async (tx) => {
      const theirs = await one(tx, `SELECT id FROM outbox WHERE id = ? AND ${WITHIN}`, [id, ...withinOf(act.person)]);
      if (!theirs || !(await this.outbox.retry(tx, id))) throw notFound('That delivery');
    });
  }
}
