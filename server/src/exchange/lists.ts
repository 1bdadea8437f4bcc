import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { itemFilter } from '../catalogue/item-filter.js';
import { ItemListQueries } from '../catalogue/item-list.queries.js';
import { ItemQueries } from '../catalogue/item.queries.js';
import { PartnersService } from '../catalogue/partners.service.js';
import type { ItemRowDto } from '../catalogue/items.dto.js';
import { DeviceService } from '../identity/device.service.js';
import { PeopleQueries } from '../identity/people.queries.js';
import { CustomersService } from '../orders/customers.service.js';
import { OrdersQueries } from '../orders/orders.queries.js';
import { PickingQueries } from '../picking/picking.queries.js';
import type { Person } from '../platform/act.js';
import { rows } from '../platform/database/tx.js';
import { notFound, Problem } from '../platform/problem.js';
import { PurchasingQueries } from '../purchasing/purchasing.queries.js';
import { PlacesQueries } from '../sites/places.queries.js';
import { placeFilter } from '../sites/sites.controller.js';
import { StockQueries } from '../stock/stock.queries.js';
import type { Table } from './exports.service.js';
import type { OutCell } from './files/write.js';

const PAGE = 500;
type Query = Record<string, string>;
type Columns<T> = readonly (readonly [head: string, cell: (row: T) => OutCell | null | Date | undefined])[];
type Load = (person: Person, query: Query) => Table | Promise<Table>;

const plain = (value: OutCell | null | Date | undefined): OutCell =>
  value === null || value === undefined ? '' : value instanceof Date ? value.toISOString() : value;

async function* each<T>(list: AsyncIterable<T> | Iterable<T>, columns: Columns<T>): AsyncGenerator<OutCell[]> {
  for await (const row of list) yield columns.map(([, cell]) => plain(cell(row)));
}

const table = <T>(name: string, list: AsyncIterable<T> | Iterable<T>, columns: Columns<T>): Table => ({
  name,
  heads: columns.map(([head]) => head),
  rows: each(list, columns),
});

async function* windows<T>(load: (from: number) => Promise<{ rows: T[] }>): AsyncGenerator<T> {
  for (let from = 0; ; from += PAGE) {
    const page = await load(from);
    yield* page.rows;
    if (page.rows.length < PAGE) return;
  }
}

/** The columns that the list of items can show, by the name the list knows them by. */
const ITEM_COLUMNS: Readonly<Record<string, readonly [string, (r: ItemRowDto) => OutCell | null | undefined]>> = {
  name: ['Item', (r) => r.name],
  sku: ['SKU', (r) => r.sku],
  className: ['Class', (r) => r.className],
  tags: ['Tags', (r) => r.tags.join('; ')],
  suppliers: ['Suppliers', (r) => r.suppliers],
  home: ['Home', (r) => r.home],
  unit: ['Unit', (r) => r.unit],
  tracking: ['Tracked by', (r) => r.tracking],
  onHand: ['On hand', (r) => r.onHand],
  held: ['Held', (r) => r.held],
  reserved: ['Reserved', (r) => r.reserved],
  available: ['Available', (r) => r.available],
  incoming: ['On order', (r) => r.incoming],
  cost: ['Cost', (r) => (r.cost == null ? '' : Number(r.cost))],
  lacks: ['Lacks', (r) => r.lacks.join(', ')],
};

/** Gives out what each list shows, with the filter that it is shown with. */
@Injectable()
export class Lists {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemListQueries,
    private readonly item: ItemQueries,
    private readonly places: PlacesQueries,
    private readonly orders: OrdersQueries,
    private readonly customers: CustomersService,
    private readonly purchasing: PurchasingQueries,
    private readonly partners: PartnersService,
    private readonly picking: PickingQueries,
    private readonly people: PeopleQueries,
    private readonly devices: DeviceService,
    private readonly stock: StockQueries,
  ) {}

  async table(person: Person, name: string, query: Query): Promise<Table> {
    const load = Object.hasOwn(this.all, name) ? this.all[name] : undefined;
    if (!load) throw notFound(`A list of ${name.slice(0, 20)}`);
    return load(person, query);
  }

  private readonly all: Readonly<Record<string, Load>> = {
    items: (person, query) => {
      const asked = (query['columns'] ?? '').split(',').filter((c) => Object.hasOwn(ITEM_COLUMNS, c) && (c !== 'cost' || person.seesCosts));
      const shown = asked.length > 0 ? asked : Object.keys(ITEM_COLUMNS).filter((c) => c !== 'cost' || person.seesCosts);
      const list = windows((from) => this.items.page(person, itemFilter(query), query['sort'], from, PAGE));
      return table(
        'items',
        list,
        shown.flatMap((c) => (ITEM_COLUMNS[c] ? [ITEM_COLUMNS[c]] : [])),
      );
    },
    places: (person, query) =>
      table(
        'places',
        windows((from) => this.places.page(person.siteIds, placeFilter(query), from, PAGE)),
        [
          ['Place', (p) => p.code],
          ['Kind', (p) => p.kind],
          ['Site', (p) => p.site],
          ['Zone', (p) => p.zone],
          ['Open to picking', (p) => (p.pickable ? 'yes' : 'no')],
          ['Blocked', (p) => (p.blocked ? 'yes' : 'no')],
          ['Walking order', (p) => p.walkOrder],
          ['Items there', (p) => p.items],
        ],
      ),
    orders: async (person, query) =>
      table('orders', await this.orders.list(person.siteIds, query['gone'] === '1'), [
        ['Order', (o) => o.code],
        ['Customer', (o) => o.customer],
        ['Channel', (o) => o.channel],
        ['State', (o) => o.state],
        ['Held because', (o) => o.holdReason],
        ['Promised', (o) => o.promisedAt],
        ['Late', (o) => (o.late ? 'yes' : 'no')],
        ['Lines', (o) => o.stock.length],
        ['Lines in stock', (o) => o.stock.filter((s) => s === 'ready' || s === 'gone').length],
      ]),
    customers: async (_person, query) =>
      table('customers', await this.customers.list(query['search'] ?? ''), [
        ['Customer', (c) => c.code],
        ['Name', (c) => c.name],
        ['E-mail', (c) => c.email],
        ['Telephone', (c) => c.phone],
        ['Address', (c) => c.addressLine],
        ['City', (c) => c.city],
        ['Postcode', (c) => c.postcode],
        ['Country', (c) => c.country],
      ]),
    'purchase-orders': async (person) =>
      table('purchase-orders', await this.purchasing.list(person.siteIds), [
        ['Order', (o) => o.code],
        ['Supplier', (o) => o.supplier],
        ['Site', (o) => o.site],
        ['State', (o) => o.state],
        ['Expected', (o) => o.expectedOn],
        ['Late', (o) => (o.late ? 'yes' : 'no')],
        ['Lines', (o) => o.lines],
        ['Lines in', (o) => o.linesIn],
      ]),
    suppliers: async (_person, query) =>
      table('suppliers', await this.partners.suppliers(query['search'] ?? ''), [
        ['Supplier', (s) => s.code],
        ['Name', (s) => s.name],
        ['E-mail', (s) => s.email],
        ['Telephone', (s) => s.phone],
        ['Currency', (s) => s.currency],
        ['Lead time, days', (s) => s.leadDays],
      ]),
    channels: async (person) => {
      must(person, 'set-up');
      return table('channels', await this.partners.channels(), [
        ['Channel', (c) => c.code],
        ['Name', (c) => c.name],
        ['Kind', (c) => c.kind],
        ['Site', (c) => c.site],
        ['Listings', (c) => c.listings],
      ]);
    },
    rounds: async (person) =>
      table('rounds', await this.picking.list(person.siteIds, person.id), [
        ['Round', (r) => r.code],
        ['Order', (r) => r.order],
        ['Customer', (r) => r.customer],
        ['State', (r) => r.state],
        ['Picker', (r) => r.picker],
        ['Stops', (r) => r.stops],
        ['Stops done', (r) => r.stopsDone],
        ['Units', (r) => r.units],
        ['Metres', (r) => r.metres],
        ['Promised', (r) => r.promisedAt],
      ]),
    people: async (person) => {
      must(person, 'set-up');
      return table('people', await this.people.list(), [
        ['Name', (p) => p.name],
        ['E-mail', (p) => p.email],
        ['Duties', (p) => p.duties.join('; ')],
        ['Sites', (p) => p.sites],
        ['Badge', (p) => p.badge],
        ['May see costs', (p) => (p.seesCosts ? 'yes' : 'no')],
        ['State', (p) => p.state],
      ]);
    },
    devices: async (person) => {
      must(person, 'set-up');
      return table('devices', await this.devices.list(person.siteIds), [
        ['Device', (d) => d.name],
        ['Site', (d) => d.site],
        ['Printer', (d) => d.printer],
        ['Enrolled', (d) => d.enrolledAt],
        ['Revoked', (d) => d.revokedAt],
      ]);
    },
    movements: async (person, query) => {
      const id = await this.item.idOf((query['sku'] ?? '').toUpperCase());
      return table('movements', this.movements(id, person.siteIds), [
        ['When', (m) => m.at],
        ['From', (m) => m.from],
        ['To', (m) => m.to],
        ['Units', (m) => m.units],
        ['Lot', (m) => m.lot],
        ['Condition', (m) => m.condition],
        ['For', (m) => m.task],
        ['Document', (m) => m.document],
        ['Who', (m) => m.who],
        ['How', (m) => m.how],
      ]);
    },
    tape: (person) =>
      table('tape', this.tape(person.siteIds), [
        ['When', (t) => t.at],
        ['Who', (t) => t.who],
        ['What', (t) => t.title],
        ['Detail', (t) => t.detail],
        ['Document', (t) => t.document],
        ['How', (t) => t.how],
      ]),
  };

  private async *movements(itemId: number, siteIds: readonly number[]) {
    for (let before: number | null = null; ;) {
      const page = await this.stock.movements(itemId, siteIds, before);
      yield* page.rows;
      if (page.before === null) return;
      before = Number(page.before);
    }
  }

  private async *tape(siteIds: readonly number[]) {
    for (let before = Number.MAX_SAFE_INTEGER; ;) {
      const found: {
        id: number;
        at: Date;
        who: string | null;
        title: string;
        detail: string;
        document: string | null;
        how: string | null;
      }[] = await rows(
        this.source,
        `SELECT a.id, a.at, p.name AS who, a.title, a.detail, a.document, a.how FROM activity a LEFT JOIN person p ON p.id = a.person_id
         WHERE a.id < ? AND (a.site_id IS NULL OR a.site_id IN (?)) ORDER BY a.id DESC LIMIT 1000`,
        [before, [0, ...siteIds]],
      );
      yield* found;
      const last = found.at(-1);
      if (!last) return;
      before = last.id;
    }
  }
}

function must(person: Person, right: string): void {
  if (!person.rights.has(right))
    throw new Problem(403, 'not-allowed', `This needs the right to ${right.replace('-', ' ')}. Ask whoever sets up people`);
}
