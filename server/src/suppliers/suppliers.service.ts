import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { ItemQueries } from '../catalogue/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  likeAny,
  mustMatch,
  notFound,
  num,
  one,
  type Page,
  pageOf,
  remove,
  rows,
  type Tx,
  update,
  type Window,
} from '../platform/index.js';
import type { ContactDto, EditSupplierDto, EditSupplierItemDto, SupplierDto, SupplierItemDto, SupplierSheetDto } from './suppliers.dto.js';
import { ScorecardQueries } from './scorecard.queries.js';

const SUPPLIER_FIELDS = `id, code, name, email, phone, currency, lead_days AS leadDays, terms, working_days AS workingDays, order_days AS orderDays, least_value AS leastValue, least_units AS leastUnits, least_pallets AS leastPallets, version`;

/** Suppliers with their prices and the people there. */
@Injectable()
export class SuppliersService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly items: ItemQueries,
    private readonly scores: ScorecardQueries,
  ) {}

  list(search: string, window: Window): Promise<Page<SupplierDto>> {
    const like = likeAny(search);
    const list = {
      select: SUPPLIER_FIELDS,
      from: 'FROM supplier WHERE name LIKE ? OR code LIKE ?',
      params: [like, like],
      order: 'name, id',
    };
    return pageOf<SupplierDto>(this.source, list, window);
  }

  async sheet(code: string, seesCosts: boolean): Promise<SupplierSheetDto> {
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

  add(act: Act, input: EditSupplierDto): Promise<{ code: string }> {
    return this.commands.run(act, 'supplier.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'supplier', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      const id = await insert(tx, 'supplier', { ...supplierColumns(input), code });
      await this.writeItems(tx, id, input.items);
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

  edit(act: Act, code: string, version: number, input: EditSupplierDto): Promise<{ code: string }> {
    return this.commands.run(act, 'supplier.edit', { code, version, input }, async (tx) => {
      const supplier = await find(tx, 'supplier', { code }, 'lock');
      if (!supplier) throw notFound(`Supplier ${code}`);
      mustMatch(supplier.version, version);
      await update(tx, 'supplier', { id: supplier.id }, { ...supplierColumns(input), version: version + 1 });
      await this.writeItems(tx, supplier.id, input.items);
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
  private async writeItems(tx: Tx, supplierId: number, items: readonly EditSupplierItemDto[] | undefined): Promise<void> {
    if (!items) return;
    await remove(tx, 'supplier_item', { supplier_id: supplierId });
    const listed = new Set<number>();
    for (const [i, line] of items.entries()) {
      const item = await find(tx, 'item', { sku: line.sku.toUpperCase() });
      if (!item) throw badForm({ [`items.${i}.sku`]: `There is no item ${line.sku}. Make the item first` });
      if (listed.has(item.id)) throw badForm({ [`items.${i}.sku`]: `${line.sku} is on the list twice. Keep one of its prices` });
      listed.add(item.id);
      const pack = await find(tx, 'pack_unit', { item_id: item.id, factor: line.factor });
      if (!pack) throw badForm({ [`items.${i}.factor`]: `${line.sku} has no pack of ${line.factor}. Add it to the item first` });
      await insert(tx, 'supplier_item', {
        supplier_id: supplierId,
        item_id: item.id,
        pack_unit_id: pack.id,
        supplier_sku: line.supplierSku,
        price: line.price,
      });
      for (const b of line.breaks ?? [])
        await insert(tx, 'supplier_price_break', { supplier_id: supplierId, item_id: item.id, from_packs: b.from, price: b.price });
    }
  }

  /** Replaces the people at a supplier; left as they are where the request names none. */
  private async writeContacts(tx: Tx, supplierId: number, contacts: readonly ContactDto[] | undefined): Promise<void> {
    if (!contacts) return;
    await remove(tx, 'supplier_contact', { supplier_id: supplierId });
    for (const [i, c] of contacts.entries())
      await insert(tx, 'supplier_contact', {
        supplier_id: supplierId,
        position: i + 1,
        name: c.name.trim(),
        role: c.role.trim(),
        email: c.email,
        phone: c.phone.trim(),
      });
  }
}

function supplierColumns(input: EditSupplierDto) {
  return {
    name: input.name.trim(),
    email: input.email,
    phone: input.phone,
    currency: input.currency,
    lead_days: input.leadDays,
    ...(input.terms === undefined ? {} : { terms: input.terms.trim() }),
    ...(input.workingDays === undefined ? {} : { working_days: input.workingDays }),
    ...(input.orderDays === undefined ? {} : { order_days: input.orderDays }),
    ...(input.leastValue === undefined ? {} : { least_value: input.leastValue }),
    ...(input.leastUnits === undefined ? {} : { least_units: input.leastUnits }),
    ...(input.leastPallets === undefined ? {} : { least_pallets: input.leastPallets }),
  };
}
