import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  find,
  insert,
  insertMany,
  likeAny,
  mapPage,
  mustMatch,
  NEXT,
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
import type {
  CustomerAddressDto,
  CustomerDto,
  CustomerOrderDto,
  CustomerPriceDto,
  CustomerSheetDto,
  EditCustomerDto,
} from './customers.dto.js';

const FIELDS =
  'code, name, email, phone, address_line AS addressLine, city, postcode, country, note, terms_days AS termsDays, whole_only AS wholeOnly, tax_code AS taxCode, tax_number AS taxNumber, currency, version';
const MOST_ORDERS = 20;

type CustomerRow = Omit<CustomerDto, 'wholeOnly'> & { wholeOnly: number };
const dto = (c: CustomerRow): CustomerDto => ({ ...c, wholeOnly: num(c.wholeOnly) === 1 });

/** Those who buy by account: where they have goods sent, what they pay, and on what terms. */
@Injectable()
export class CustomersService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async list(search: string, window: Window): Promise<Page<CustomerDto>> {
    const like = likeAny(search);
    const where = search ? 'WHERE name LIKE ? OR code LIKE ? OR city LIKE ?' : '';
    const list = { select: FIELDS, from: `FROM customer ${where}`, params: search ? [like, like, like] : [], order: 'name, id' };
    return mapPage(await pageOf<CustomerRow>(this.source, list, window), dto);
  }

  async sheet(code: string, siteIds: readonly number[]): Promise<CustomerSheetDto> {
    const found = await one<CustomerRow & { id: number }>(this.source, `SELECT id, ${FIELDS} FROM customer WHERE code = ?`, [code]);
    if (!found) throw notFound(`Customer ${code}`);
    const { id, ...customer } = found;
    const [addresses, prices, orders] = await Promise.all([
      rows<CustomerAddressDto>(
        this.source,
        'SELECT name, address_line AS addressLine, city, postcode, country FROM customer_address WHERE customer_id = ? ORDER BY name',
        [id],
      ),
      rows<CustomerPriceDto>(
        this.source,
        'SELECT i.sku, p.factor, p.price FROM customer_price p JOIN item i ON i.id = p.item_id WHERE p.customer_id = ? ORDER BY i.sku, p.factor',
        [id],
      ),
      this.orders(id, customer.email, siteIds),
    ]);
    return { ...dto(customer), addresses, prices, orders };
  }

  /** Each of the two ways to an order goes by an index of its own. */
  private async orders(id: number, email: string, siteIds: readonly number[]): Promise<CustomerOrderDto[]> {
    const by = (column: 'customer_id' | 'email', value: number | string) =>
      rows<CustomerOrderDto & { id: number }>(
        this.source,
        `SELECT id, code, state, placed_at AS placedAt FROM sales_order WHERE ${column} = ? AND site_id IN (?) ORDER BY id DESC LIMIT ${MOST_ORDERS}`,
        [value, [0, ...siteIds]],
      );
    const found = [...(await by('customer_id', id)), ...(email ? await by('email', email) : [])];
    return [...new Map(found.map((o) => [o.id, o])).values()]
      .sort((a, b) => b.id - a.id)
      .slice(0, MOST_ORDERS)
      .map(({ id: _, ...o }) => o);
  }

  add(act: Act, input: EditCustomerDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await find(tx, 'customer', { code })) throw badForm({ code: `${code} is taken. Choose another code` });
      await this.mustKnow(tx, input);
      const id = await insert(tx, 'customer', { code, ...valuesOf(input) });
      await this.writeLists(tx, id, input);
      await this.activity.record(tx, act, { kind: 'customer', glyph: 'full', title: `Customer ${input.name} made`, document: code });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditCustomerDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer.edit', { code, version, input }, async (tx) => {
      const kept = await find(tx, 'customer', { code }, 'lock');
      if (!kept) throw notFound(`Customer ${code}`);
      mustMatch(kept.version, version);
      await this.mustKnow(tx, input);
      await update(tx, 'customer', { id: kept.id }, { ...valuesOf(input), version: NEXT });
      await this.writeLists(tx, kept.id, input);
      await this.activity.record(tx, act, { kind: 'customer', glyph: 'full', title: `Customer ${input.name} changed`, document: code });
      return { code };
    });
  }

  private async mustKnow(tx: Tx, { taxCode: code, currency }: EditCustomerDto): Promise<void> {
    if (currency?.trim() && !(await one(tx, 'SELECT code FROM currency WHERE code = ?', [currency.trim().toUpperCase()])))
      throw badForm({ currency: `There is no currency ${currency}. Make it in Setup, Company` });
    if (code?.trim() && !(await one(tx, 'SELECT code FROM tax_rate WHERE code = ?', [code.trim()])))
      throw badForm({ taxCode: `There is no tax rate ${code}. Make it in Setup, Company` });
  }

  private async writeLists(tx: Tx, id: number, { addresses, prices }: EditCustomerDto): Promise<void> {
    const twice = addresses.findIndex((a, i) => addresses.findIndex((b) => sameName(a, b)) !== i);
    if (twice >= 0) throw badForm({ [`addresses.${twice}.name`]: 'Another place is called this already' });
    await remove(tx, 'customer_address', { customer_id: id });
    if (addresses.length > 0)
      await insertMany(
        tx,
        'customer_address',
        ['customer_id', 'name', 'address_line', 'city', 'postcode', 'country'],
        addresses.map((a) => [id, a.name.trim(), a.addressLine.trim(), a.city.trim(), a.postcode.trim(), a.country]),
      );
    const skus = prices.map((p) => p.sku.toUpperCase());
    const items = await rows<{ id: number; sku: string }>(tx, 'SELECT id, sku FROM item WHERE sku IN (?)', [['', ...skus]]);
    const known = new Map(items.map((i) => [i.sku.toUpperCase(), i.id]));
    const faults = prices.flatMap((p, i) => (known.has(p.sku.toUpperCase()) ? [] : [[`prices.${i}.sku`, `There is no item ${p.sku}`]]));
    if (faults.length > 0) throw badForm(Object.fromEntries(faults) as Record<string, string>);
    await remove(tx, 'customer_price', { customer_id: id });
    if (prices.length > 0)
      await insertMany(
        tx,
        'customer_price',
        ['customer_id', 'item_id', 'factor', 'price'],
        prices.map((p) => [id, known.get(p.sku.toUpperCase()), p.factor, p.price]),
        'ON DUPLICATE KEY UPDATE price = VALUES(price)',
      );
  }
}

const sameName = (a: CustomerAddressDto, b: CustomerAddressDto) => a.name.trim().toLowerCase() === b.name.trim().toLowerCase();

const valuesOf = (c: EditCustomerDto) => ({
  name: c.name.trim(),
  email: c.email.trim(),
  phone: c.phone,
  address_line: c.addressLine,
  city: c.city,
  postcode: c.postcode,
  country: c.country,
  note: c.note,
  terms_days: c.termsDays,
  whole_only: c.wholeOnly,
  tax_code: c.taxCode?.trim() || null,
  tax_number: c.taxNumber?.trim() ?? '',
  currency: c.currency?.trim().toUpperCase() || null,
});
