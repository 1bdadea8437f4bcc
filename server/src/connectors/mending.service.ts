import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Act, notFound, one } from '../platform/index.js';
import { CHANNEL_ACCESS, type ChannelAccess } from './connector.js';
import { Connectors } from './connectors.js';
import { IntakeService } from './intake.service.js';
import { ParkedMessages } from './parked-messages.js';

/** Takes in by hand what could not be understood, as it should have been. */
@Injectable()
export class MendingService {
  constructor(
    private readonly source: DataSource,
    private readonly parked: ParkedMessages,
    private readonly connectors: Connectors,
    private readonly intake: IntakeService,
  ) {}

  mend(act: Act, id: number, version: number, text: string): Promise<{ code: string }> {
    return this.parked.mend(act, id, version, text, async (channelId, raw) => {
      const channel = await one<ChannelAccess>(this.source, `SELECT ${CHANNEL_ACCESS} FROM channel WHERE id = ?`, [channelId]);
      if (!channel) throw notFound('That channel');
      return (await this.intake.act(channel, await this.connectors.read(channel, raw))).code;
    });
  }
}
