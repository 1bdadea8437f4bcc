import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { insert, notFound, one, pageOf, type Window } from '../platform/index.js';
import type { ExchangeDto, ExchangePageDto, ExchangeRowDto } from './channel-desk.dto.js';

const MOST_RAW = 64_000;
const FIELDS = 'e.id, e.at, e.direction, e.what, e.ref, e.went, e.detail';

export interface Exchange {
  direction: 'in' | 'out';
  what: 'order' | 'change' | 'cancel' | 'return' | 'invoice' | 'message' | 'taken' | 'parcel' | 'stock' | 'asked' | 'file';
  ref: string | null;
  /** It did what it was for; it said nothing new; it was put aside; it failed and is tried again. */
  went: 'well' | 'again' | 'parked' | 'failed';
  detail?: string;
  raw?: string;
}

/** What was said between the house and its channels, as it was said. */
@Injectable()
export class Exchanges {
  constructor(private readonly source: DataSource) {}

  async note(channelId: number, { direction, what, ref, went, detail = '', raw }: Exchange): Promise<void> {
    await insert(this.source, 'channel_exchange', {
      channel_id: channelId,
      direction,
      what,
      ref: ref?.slice(0, 60) ?? null,
      went,
      detail: detail.slice(0, 300),
      raw: raw?.slice(0, MOST_RAW) ?? null,
    });
  }

  /** The newest first. */
  async list(channelId: number, window: Window): Promise<ExchangePageDto> {
    return pageOf<ExchangeRowDto>(
      this.source,
      { select: FIELDS, from: 'FROM channel_exchange e WHERE e.channel_id = ?', params: [channelId], order: 'e.id DESC' },
      window,
    );
  }

  async sheet(channelId: number, id: number): Promise<ExchangeDto> {
    const found = await one<ExchangeDto>(
      this.source,
      `SELECT ${FIELDS}, e.raw FROM channel_exchange e WHERE e.id = ? AND e.channel_id = ?`,
      [id, channelId],
    );
    if (!found) throw notFound('That message');
    return found;
  }
}
