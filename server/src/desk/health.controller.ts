import { Controller, Get } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { GoodEnding, Problem } from '../platform/index.js';
import { HealthQueries } from './health.queries.js';

export class HealthDto {
  says: 'running' | 'ready';
}

/** For whoever starts servers, and sends people to them. Says nothing of the house. */
@Controller('health')
export class HealthController {
  constructor(
    private readonly health: HealthQueries,
    private readonly ending: GoodEnding,
  ) {}

  /** Whether this server runs at all; where it does not answer, it is to be started anew. */
  @Get('live')
  @Access('public')
  live(): HealthDto {
    return { says: 'running' };
  }

  /** Whether it can answer people: not while it ends, nor while the database is away. */
  @Get('ready')
  @Access('public')
  async ready(): Promise<HealthDto> {
    if (this.ending.isEnding) throw new Problem(503, 'away', 'This server is ending. Another one takes over');
    if (!(await this.health.answers())) throw new Problem(503, 'away', 'The database is away');
    return { says: 'ready' };
  }
}
