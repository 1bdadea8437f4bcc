/** How a channel shares in what is free of an item. */
export interface ChannelRule {
  /** Base units in one of what the channel sells. */
  factor: number;
  /** Base units that the channel never sees. */
  keepBack: number;
  /** Its part in hundredths of what is scarce, and under how many base units an item is. */
  share: number;
  scarceUnder: number;
}

/**
 * How many a channel may be told of what is free: whole ones of what it sells, less what is kept back; of what is scarce only its share.
 * Never below nought. Pure.
 */
export function channelUnits(free: number, { factor, keepBack, share, scarceUnder }: ChannelRule): number {
  const shared = free < scarceUnder ? Math.floor((free * share) / 100) : free;
  return Math.max(0, Math.floor((shared - keepBack) / factor));
}
