import { Injectable } from '@nestjs/common';
import { CarriersQueries } from '../carriers/index.js';
import { Problem, signatureMatches } from '../platform/index.js';
import { readEvents } from './events.js';
import type { HeardDto } from './tracking.dto.js';
import { TrackingService } from './tracking.service.js';

/** Messages that carriers send by themselves, signed with the key that both know. */
@Injectable()
export class WebhookService {
  constructor(
    private readonly carriers: CarriersQueries,
    private readonly tracking: TrackingService,
  ) {}

  async hear(code: string, body: Buffer | undefined, given: string): Promise<HeardDto> {
    const carrier = await this.carriers.spokenTo(code).catch(() => null);
    // A carrier that is not ours is told the same as one that does not know the key.
    if (!body || !carrier?.api_key || !signatureMatches(carrier.api_key, body, given))
      throw new Problem(401, 'signature', 'The signature does not match the message');
    const { events, refused } = read(body);
    return { ...(await this.tracking.hear(carrier, events)), refused };
  }
}

function read(body: Buffer) {
  try {
    return readEvents(JSON.parse(body.toString('utf8')), new Date());
  } catch (thrown) {
    throw new Problem(400, 'form', thrown instanceof Error ? thrown.message : 'Not a message');
  }
}
