import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Act, mustBeAt } from '../platform/act.js';
import { ActivityService } from '../activity/activity.service.js';
import { CommandLog } from '../platform/command-log.js';
import { num, one, rows, type Tx } from '../platform/database/tx.js';
import { badForm, notFound } from '../platform/problem.js';
import { mustMatch } from '../platform/version.js';
import type {
  ChannelDto,
  ChannelSheetDto,
  ContactDto,
  EditChannelDto,
  EditListingDto,
  EditSupplierDto,
  EditSupplierItemDto,
  ListingDto,
  NewChannelDto,
  SupplierDto,
  SupplierItemDto,
  SupplierSheetDto,
} from './partners.dto.js';
import { Channel, Item, Listing, PackUnitRow, Supplier, SupplierItem } from './catalogue.entity.js';
import { ItemQueries } from './item.queries.js';
import { ScorecardQueries } from './scorecard.queries.js';

const SUPPLIER_FIELDS = `id, code, name, email, phone, currency, lead_days AS leadDays, terms, working_days AS workingDays, least_value AS leastValue, least_units AS leastUnits, least_pallets AS leastPallets, version`;
const CHANNEL_FIELDS = `c.id, c.code, c.name, c.kind, s.name AS site, c.base_url AS baseUrl, c.polled_at AS polledAt, c.poll_error AS pollError, c.version,
  (SELECT COUNT(*) FROM listing l WHERE l.channel_id = c.id) AS listings`;

/** Those the house trades with: suppliers with their prices, channels with their listings. */
@Injectable()
export class PartnersService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly items: ItemQueries,
    private readonly scores: ScorecardQueries,
  ) {}

  suppliers(search: string): Promise<SupplierDto[]> {
    const like = `%${search.replace(/[\\%_]/g, '\\$&')}%`;
    return rows<SupplierDto>(
      this.source,
      `SELECT ${SUPPLIER_FIELDS} FROM supplier WHERE name LIKE ? OR code LIKE ? ORDER BY name LIMIT 500`,
      [like, like],
    );
  }

  async supplier(code: string, seesCosts: boolean): Promise<SupplierSheetDto> {
    const found = await one<SupplierDto & { sends: number | string }>(
      this.source,
      `SELECT ${SUPPLIER_FIELDS}, document_key IS NOT NULL AS sends FROM supplier WHERE code = ?`,
      [code],
    );
    if (!found) throw notFound(`Supplier ${code}`);
    const items = await rows<Omit<SupplierItemDto, 'packs'> & { price: string }>(
      this.source,
      `SELECT i.id AS itemId, i.sku, i.name, i.picture, si.supplier_sku AS supplierSku, si.pack_unit_id AS packId, si.price FROM supplier_item si JOIN item i ON i.id = si.item_id WHERE si.supplier_id = ? ORDER BY i.name`,
      [found.id],
    );
    const [packs, breaks, contacts, scorecard] = await Promise.all([
      this.items.packs(items.map((i) => i.itemId)),
      rows<{ itemId: number; from: number; price: string }>(
        this.source,
        'SELECT item_id AS itemId, from_packs AS `from`, price FROM supplier_price_break WHERE supplier_id = ? ORDER BY item_id, from_packs',
        [found.id],
      ),
      rows<ContactDto>(this.source, 'SELECT name, role, email, phone FROM supplier_contact WHERE supplier_id = ? ORDER BY position', [
        found.id,
      ]),
      this.scores.of(found.id),
    ]);
    const breaksOf = (itemId: number) => breaks.filter((b) => b.itemId === itemId).map(({ from, price }) => ({ from, price }));
    const { sends, ...head } = found;
    return {
      ...head,
      sendsDocuments: num(sends) === 1,
      contacts,
      scorecard,
      items: items.map(({ price, ...i }) => ({
        ...i,
        ...(seesCosts ? { price, breaks: breaksOf(i.itemId) } : {}),
        packs: packs.get(i.itemId) ?? [],
      })),
    };
  }

  addSupplier(act: Act, input: EditSupplierDto): Promise<{ code: string }> {
    return this.commands.run(act, 'supplier.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await tx.findOneBy(Supplier, { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      const made = await tx.insert(Supplier, { ...supplierColumns(input), code });
      const { id } = made.identifiers[0] as { id: number };
      await this.writeSupplierItems(tx, id, input.items);
      await this.writeContacts(tx, id, input.contacts);
      await this.activity.record(tx, act, {
        kind: 'supplier',
        glyph: 'full',
        title: `Supplier ${input.name} made`,
        document: code,
      });
      return { code };
    });
  }

  editSupplier(act: Act, code: string, version: number, input: EditSupplierDto): Promise<{ code: string }> {
    return this.commands.run(act, 'supplier.edit', { code, version, input }, async (tx) => {
      const supplier = await tx.findOne(Supplier, { where: { code }, lock: { mode: 'pessimistic_write' } });
      if (!supplier) throw notFound(`Supplier ${code}`);
      mustMatch(supplier.version, version);
      await tx.update(Supplier, supplier.id, { ...supplierColumns(input), version: version + 1 });
      await this.writeSupplierItems(tx, supplier.id, input.items);
      await this.writeContacts(tx, supplier.id, input.contacts);
      await this.activity.record(tx, act, {
        kind: 'supplier',
        glyph: 'full',
        title: `Supplier ${input.name} changed`,
        document: code,
      });
      return { code };
    });
  }

  /** Replaces the price list; left as it is where the request names none. */
  private async writeSupplierItems(tx: Tx, supplierId: number, items: readonly EditSupplierItemDto[] | undefined): Promise<void> {
    if (!items) return;
    await tx.delete(SupplierItem, { supplierId });
    for (const line of items) {
      const item = await tx.findOneBy(Item, { sku: line.sku.toUpperCase() });
      if (!item) throw badForm({ items: `There is no item ${line.sku}. Make the item first` });
      const pack = await tx.findOneBy(PackUnitRow, { itemId: item.id, factor: line.factor });
      if (!pack) throw badForm({ items: `${line.sku} has no pack of ${line.factor}. Add it to the item first` });
      await tx.insert(SupplierItem, {
        supplierId,
        itemId: item.id,
        packUnitId: pack.id,
        supplierSku: line.supplierSku,
        price: line.price,
      });
      for (const b of line.breaks ?? [])
        await tx.query('INSERT INTO supplier_price_break (supplier_id, item_id, from_packs, price) VALUES (?, ?, ?, ?)', [
          supplierId,
          item.id,
          b.from,
          b.price,
        ]);
    }
  }

  /** Replaces the people at a supplier; left as they are where the request names none. */
  private async writeContacts(tx: Tx, supplierId: number, contacts: readonly ContactDto[] | undefined): Promise<void> {
    if (!contacts) return;
    await tx.query('DELETE FROM supplier_contact WHERE supplier_id = ?', [supplierId]);
    for (const [i, c] of contacts.entries())
      await tx.query('INSERT INTO supplier_contact (supplier_id, position, name, role, email, phone) VALUES (?, ?, ?, ?, ?, ?)', [
        supplierId,
        i + 1,
        c.name.trim(),
        c.role.trim(),
        c.email,
        c.phone.trim(),
      ]);
  }

  async channels(): Promise<ChannelDto[]> {
    const found = await rows<ChannelDto>(
      this.source,
      `SELECT ${CHANNEL_FIELDS} FROM channel c JOIN site s ON s.id = c.site_id ORDER BY c.name`,
    );
    return found.map((c) => ({ ...c, listings: num(c.listings) }));
  }

  async channel(code: string): Promise<ChannelSheetDto> {
    const found = await one<ChannelDto>(
      this.source,
      `SELECT ${CHANNEL_FIELDS} FROM channel c JOIN site s ON s.id = c.site_id WHERE c.code = ?`,
      [code],
    );
    if (!found) throw notFound(`Channel ${code}`);
    const items = await rows<ListingDto>(
      this.source,
      `SELECT l.channel_sku AS channelSku, i.sku, i.name, l.factor, l.keep_back AS keepBack, l.price, l.told_units AS told FROM listing l JOIN item i ON i.id = l.item_id WHERE l.channel_id = ? ORDER BY i.name`,
      [found.id],
    );
    return { ...found, listings: num(found.listings), items };
  }

  addChannel(act: Act, input: NewChannelDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'channel.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await tx.findOneBy(Channel, { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      const made = await tx.insert(Channel, {
        code,
        name: input.name,
        kind: input.kind,
        siteId: input.siteId,
        baseUrl: input.baseUrl ?? null,
        secret: input.secret ?? null,
      });
      await this.writeListings(tx, (made.identifiers[0] as { id: number }).id, input.listings);
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'full',
        title: `Channel ${input.name} made`,
        document: code,
      });
      return { code };
    });
  }

  editChannel(act: Act, code: string, version: number, input: EditChannelDto): Promise<{ code: string }> {
    return this.commands.run(act, 'channel.edit', { code, version, input }, async (tx) => {
      const channel = await tx.findOne(Channel, { where: { code }, lock: { mode: 'pessimistic_write' } });
      if (!channel) throw notFound(`Channel ${code}`);
      mustBeAt(act.person, channel.siteId);
      mustMatch(channel.version, version);
      await tx.update(Channel, channel.id, {
        name: input.name,
        baseUrl: input.baseUrl ?? null,
        version: version + 1,
      });
      await this.writeListings(tx, channel.id, input.listings);
      await this.activity.record(tx, act, {
        kind: 'channel',
        glyph: 'full',
        title: `Channel ${input.name} changed`,
        document: code,
      });
      return { code };
    });
  }

  private async writeListings(tx: Tx, channelId: number, listings: readonly EditListingDto[]): Promise<void> {
    await tx.delete(Listing, { channelId });
    for (const { sku, ...line } of listings) {
      const item = await tx.findOneBy(Item, { sku: sku.toUpperCase() });
      if (!item) throw badForm({ listings: `There is no item ${sku}. Make the item first` });
      await tx.insert(Listing, { channelId, itemId: item.id, ...line });
    }
  }
}

function supplierColumns(input: EditSupplierDto) {
  return {
    name: input.name.trim(),
    email: input.email,
    phone: input.phone,
    currency: input.currency,
    leadDays: input.leadDays,
    ...(input.terms === undefined ? {} : { terms: input.terms.trim() }),
    ...(input.workingDays === undefined ? {} : { workingDays: input.workingDays }),
    ...(input.leastValue === undefined ? {} : { leastValue: input.leastValue }),
    ...(input.leastUnits === undefined ? {} : { leastUnits: input.leastUnits }),
    ...(input.leastPallets === undefined ? {} : { leastPallets: input.leastPallets }),
  };
}
