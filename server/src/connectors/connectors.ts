import { Injectable } from '@nestjs/common';
import type { ChannelMessage, Connector } from './connector.js';
import { Lindenmart } from './lindenmart/lindenmart.js';
import { Trade } from './trade/trade.js';
import { WebShop } from './web-shop/web-shop.js';

/** Which connector speaks to which kind of channel. Another kind of channel is another folder, and a line here. */
@Injectable()
export class Connectors {
  private readonly byKind: Readonly<Record<string, Connector>>;

  constructor(
    private readonly shop: WebShop,
    market: Lindenmart,
    private readonly trade: Trade,
  ) {
    this.byKind = { 'web-shop': shop, marketplace: market, trade };
  }

  /** The connector of a channel; undefined for one whose orders are keyed. */
  of(channel: { kind: string }): Connector | undefined {
    return Object.hasOwn(this.byKind, channel.kind) ? this.byKind[channel.kind] : undefined;
  }

  /** Reads a message as its channel sends it; one that comes by file may be a trade order whatever its channel is. Problem 400. */
  read(channel: { kind: string }, raw: string): Promise<ChannelMessage> {
    const isXml = raw.trimStart().startsWith('<');
    if (isXml) return this.trade.read(raw);
    return ((channel.kind === 'trade' ? undefined : this.of(channel)) ?? this.shop).read(raw);
  }
}
