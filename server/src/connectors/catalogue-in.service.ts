import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ItemsService } from '../catalogue/index.js';
import { ChannelsService } from '../channels/index.js';
import { type Act, badForm, badState, inTransaction, notFound, partOf, type Person, rows } from '../platform/index.js';
import type { AskedDto, OfferDto, TakeOfferDto } from './channel-desk.dto.js';
import { type ChannelAccess, channelOf, type Offer } from './connector.js';
import { Connectors } from './connectors.js';

interface Goods {
  sku: string;
  name: string;
  factor: number;
}

/** Takes over what a channel offers: links its codes to our goods, as they are proposed and somebody agrees, and makes items of the rest. */
@Injectable()
export class CatalogueIn {
  constructor(
    private readonly source: DataSource,
    private readonly connectors: Connectors,
    private readonly channels: ChannelsService,
    private readonly items: ItemsService,
  ) {}

  /** What the channel offers, with what each would be linked to: as it is, by barcode, by SKU, by name; new where nothing is like it. */
  async proposals(person: Pick<Person, 'siteIds'>, code: string): Promise<OfferDto[]> {
    const { channel, offers } = await this.offers(person, code);
    const linked = await rows<{ channelSku: string } & Goods>(
      this.source,
      'SELECT l.channel_sku AS channelSku, i.sku, i.name, l.factor FROM listing l JOIN item i ON i.id = l.item_id WHERE l.channel_id = ?',
      [channel.id],
    );
    const barcodes = await rows<{ code: string } & Goods>(
      this.source,
      'SELECT b.code, i.sku, i.name, u.factor FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code IN (?)',
      [['', ...offers.flatMap((o) => (o.barcode ? [o.barcode] : []))]],
    );
    const named = await rows<Goods>(this.source, 'SELECT sku, name, 1 AS factor FROM item WHERE sku IN (?) OR name IN (?)', [
      ['', ...offers.map((o) => o.sku)],
      ['', ...offers.map((o) => o.title)],
    ]);
    const same = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();
    return offers.map((o) => {
      const ways: readonly (readonly [string, Goods | undefined])[] = [
        ['linked', linked.find((l) => l.channelSku === o.sku)],
        ['barcode', barcodes.find((b) => b.code === o.barcode)],
        ['sku', named.find((n) => same(n.sku, o.sku))],
        ['name', named.find((n) => same(n.name, o.title))],
      ];
      const [by, goods] = ways.find(([, g]) => g !== undefined) ?? ['new', undefined];
      return {
        channelSku: o.sku,
        title: o.title,
        price: o.price,
        barcode: o.barcode,
        sku: goods?.sku ?? null,
        name: goods?.name ?? null,
        by,
        factor: goods?.factor ?? 1,
      };
    });
  }

  /** Links what was chosen; items are made of those without one. Each by itself: what is there already is linked and not made again. */
  async take(act: Act, code: string, chosen: readonly TakeOfferDto[]): Promise<AskedDto> {
    const { channel, offers } = await this.offers(act.person, code);
    const wanted = chosen.map((c) => {
      const offer = offers.find((o) => o.sku === c.channelSku);
      if (!offer) throw badForm({ offers: `${c.channelSku} is not among what ${channel.name} offers by now. Look again` });
      return { offer, sku: c.sku };
    });
    const there = await rows<{ sku: string }>(this.source, 'SELECT channel_sku AS sku FROM listing WHERE channel_id = ?', [channel.id]);
    let count = 0;
    for (const { offer, sku } of wanted) {
      if (there.some((l) => l.sku === offer.sku)) {
        count++;
        continue;
      }
      const own = sku.toUpperCase() || (await this.made(act, channel, offer));
      const known = await rows<{ id: number }>(this.source, 'SELECT id FROM item WHERE sku = ?', [own]);
      const itemId = known[0]?.id;
      if (itemId === undefined) throw badForm({ offers: `There is no item ${own}. Choose another, or leave it to be made` });
      const factor = (await this.proposed(offer, own)) ?? 1;
      await inTransaction(this.source, (tx) =>
        this.channels.link(tx, channel.id, { channelSku: offer.sku, itemId, price: offer.price, factor }),
      );
      count++;
    }
    return { count };
  }

  /** How many pieces of an item an offer's barcode stands for. */
  private async proposed(offer: Offer, sku: string): Promise<number | undefined> {
    if (!offer.barcode) return undefined;
    const [found] = await rows<{ factor: number }>(
      this.source,
      'SELECT u.factor FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id WHERE b.code = ? AND i.sku = ?',
      [offer.barcode, sku],
    );
    return found?.factor;
  }

  /** Makes an item of what is offered, once, under the channel's code as far as it can be one of ours. */
  private async made(act: Act, channel: ChannelAccess, offer: Offer): Promise<string> {
    const sku = offer.sku
      .toUpperCase()
      .replace(/[^A-Z0-9._-]+/g, '-')
      .slice(0, 39);
    const known = await rows<{ id: number }>(this.source, 'SELECT id FROM item WHERE sku = ?', [sku]);
    if (known.length > 0) throw badState(`Our ${sku} is another item. Link ${offer.sku} to it, or to another`);
    const taken = offer.barcode
      ? await rows<{ id: number }>(this.source, 'SELECT id FROM barcode WHERE code = ?', [offer.barcode])
      : [{ id: 0 }];
    const { code } = await this.items.add(partOf(act, `${channel.code}/${offer.sku}`), {
      sku,
      name: offer.title,
      className: '',
      picture: 'box',
      tracking: 'none',
      rotation: 'fifo',
      neverHoldsUp: false,
      packs: [
        {
          name: 'piece',
          plural: 'pieces',
          factor: 1,
          weightG: null,
          lengthMm: null,
          widthMm: null,
          heightMm: null,
          barcodes: taken.length === 0 && offer.barcode ? [offer.barcode] : [],
        },
      ],
    } as never);
    return code;
  }

  private async offers(person: Pick<Person, 'siteIds'>, code: string): Promise<{ channel: ChannelAccess; offers: Offer[] }> {
    const channel = await channelOf(this.source, code);
    if (!channel || !person.siteIds.includes(channel.site_id)) throw notFound(`Channel ${code}`);
    const connector = channel.base_url ? this.connectors.of(channel) : undefined;
    if (!connector?.catalogue) throw badState(`${channel.name} cannot be asked for what it offers`);
    try {
      return { channel, offers: await connector.catalogue(channel) };
    } catch (thrown) {
      throw badState(`${channel.name} does not answer: ${thrown instanceof Error ? thrown.message : String(thrown)}. Try again later`);
    }
  }
}
