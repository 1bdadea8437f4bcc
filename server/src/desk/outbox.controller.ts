import { Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Access } from '../identity/index.js';
import { type Act, Acting, CommandLog, notFound, Outbox, rows } from '../platform/index.js';
import { OutboxRowDto } from './outbox.dto.js';

@Controller('api/outbox')
export class OutboxController {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly commands: CommandLog,
  ) {}

  /** What waits to leave the building, and the newest of what has left. */
  @Get()
  @Access('set-up')
  list(): Promise<OutboxRowDto[]> {
    return rows<OutboxRowDto>(
      this.source,
      `SELECT id, receiver, kind, document, state, attempts, next_at AS nextAt, last_error AS lastError, created_at AS createdAt FROM outbox ORDER BY state = 'done', id DESC LIMIT 100`,
    );
  }

  @Post(':id/retry')
  @Access('set-up')
  @HttpCode(204)
  retry(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.commands.run(act, 'outbox.retry', { id }, async (tx) => {
      if (!(await this.outbox.retry(tx, id))) throw notFound('That delivery');
    });
  }
}
