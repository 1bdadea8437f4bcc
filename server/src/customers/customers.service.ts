import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  likeAny,
  mustMatch,
  notFound,
  one,
  type Page,
  pageOf,
  rows,
  type Window,
} from '../platform/index.js';
import type { CustomerDto, CustomerOrderDto, CustomerSheetDto, EditCustomerDto } from './customers.dto.js';

const FIELDS = 'code, name, email, phone, address_line AS addressLine, city, postcode, country, note, version';
const COLUMNS = ['name', 'email', 'phone', 'address_line', 'city', 'postcode', 'country', 'note'];
const valuesOf = (c: EditCustomerDto) => [c.name.trim(), c.email.trim(), c.phone, c.addressLine, c.city, c.postcode, c.country, c.note];

/** Those who buy by account: their names and addresses, for orders that are keyed and for files. */
@Injectable()
export class CustomersService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  list(search: string, window: Window): Promise<Page<CustomerDto>> {
    const like = likeAny(search);
    const where = search ? 'WHERE name LIKE ? OR code LIKE ? OR city LIKE ?' : '';
    const list = { select: FIELDS, from: `FROM customer ${where}`, params: search ? [like, like, like] : [], order: 'name, id' };
    return pageOf<CustomerDto>(this.source, list, window);
  }

  async sheet(code: string, siteIds: readonly number[]): Promise<CustomerSheetDto> {
    const customer = await one<CustomerDto>(this.source, `SELECT ${FIELDS} FROM customer WHERE code = ?`, [code]);
    if (!customer) throw notFound(`Customer ${code}`);
    const orders = customer.email
      ? await rows<CustomerOrderDto>(
          this.source,
          'SELECT code, state, placed_at AS placedAt FROM sales_order WHERE email = ? AND site_id IN (?) ORDER BY id DESC LIMIT 20',
          [customer.email, [0, ...siteIds]],
        )
      : [];
    return { ...customer, orders };
  }

  add(act: Act, input: EditCustomerDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer.add', input, async (tx) => {
      const code = input.code.toUpperCase();
      if (await one(tx, 'SELECT id FROM customer WHERE code = ?', [code])) throw badForm({ code: `${code} is taken. Choose another code` });
      await tx.query(`INSERT INTO customer (code, ${COLUMNS.join(', ')}) VALUES (?)`, [[code, ...valuesOf(input)]]);
      await this.activity.record(tx, act, { kind: 'customer', glyph: 'full', title: `Customer ${input.name} made`, document: code });
      return { code };
    });
  }

  edit(act: Act, code: string, version: number, input: EditCustomerDto): Promise<{ code: string }> {
    return this.commands.run(act, 'customer.edit', { code, version, input }, async (tx) => {
      const kept = await one<{ version: number }>(tx, 'SELECT version FROM customer WHERE code = ? FOR UPDATE', [code]);
      if (!kept) throw notFound(`Customer ${code}`);
      mustMatch(kept.version, version);
      await tx.query(`UPDATE customer SET ${COLUMNS.map((c) => `${c} = ?`).join(', ')}, version = version + 1 WHERE code = ?`, [
        ...valuesOf(input),
        code,
      ]);
      await this.activity.record(tx, act, { kind: 'customer', glyph: 'full', title: `Customer ${input.name} changed`, document: code });
      return { code };
    });
  }
}
