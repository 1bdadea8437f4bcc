import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { ChannelsService, ChannelStock } from '../channels/index.js';
import { type Act, badForm, CommandLog, num, pageOf, type Person, rows, type Window } from '../platform/index.js';
import type { AskedDto, ListItemDto, UnlistedDto, UnlistedPageDto } from './channel-desk.dto.js';

/** Goods that a channel could sell and does not offer, and how they come to be listed there. */
@Injectable()
export class Unlisted {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly channels: ChannelsService,
    private readonly stock: ChannelStock,
    private readonly activity: ActivityService,
  ) {}

  /** Items without a listing at a channel: what most lies free of at the sites that it sells from comes first; of a kit, what its parts allow. What is only laid in is not sold. */
  async list(person: Pick<Person, 'siteIds'>, code: string, window: Window): Promise<UnlistedPageDto> {
    const { id } = await this.channels.seen(person, code);
    const kits = await this.stock.kits(id);
    const page = await pageOf<UnlistedDto & { itemId: number; units: string | number | null }>(
      this.source,
      {
        select: `i.id AS itemId, i.sku, i.name, f.units, (SELECT l.price FROM listing l WHERE l.item_id = i.id ORDER BY l.id LIMIT 1) AS price`,
        from: `FROM item i LEFT JOIN (SELECT s.item_id, SUM(CAST(s.on_hand AS SIGNED) - s.held - s.reserved) AS units FROM site_stock s JOIN channel_site x ON x.site_id = s.site_id AND x.channel_id = ? GROUP BY s.item_id) f ON f.item_id = i.id
          WHERE i.never_holds_up = 0 AND NOT EXISTS (SELECT 1 FROM listing l WHERE l.channel_id = ? AND l.item_id = i.id)`,
        params: [id, id],
        order: 'COALESCE(f.units, 0) DESC, i.id',
      },
      window,
    );
    return { ...page, rows: page.rows.map(({ itemId, ...r }) => ({ ...r, units: kits.get(itemId) ?? Math.max(0, num(r.units ?? 0)) })) };
  }

  /** Lists items under their own SKU, single units each. What is listed by then stays as it is. Problem 400 where there is no such item. */
  add(act: Act, code: string, wanted: readonly ListItemDto[]): Promise<AskedDto> {
    return this.commands.run(act, 'channel.list', { code, wanted }, async (tx) => {
      const { id, siteId, name } = await this.channels.seen(act.person, code);
      const known = new Map(
        (await rows<{ id: number; sku: string }>(tx, 'SELECT id, sku FROM item WHERE sku IN (?)', [['', ...wanted.map((w) => w.sku)]])).map(
          (i) => [i.sku.toUpperCase(), i.id],
        ),
      );
      for (const { sku, price } of wanted) {
        const itemId = known.get(sku.toUpperCase());
        if (itemId === undefined) throw badForm({ items: `There is no item ${sku}. Look again` });
        await this.channels.link(tx, id, { channelSku: sku, itemId, price });
      }
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'full',
        title: `${wanted.length} listed at ${name}`,
        document: code,
        siteId,
      });
      return { count: wanted.length };
    });
  }
}
