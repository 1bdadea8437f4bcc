import { kindsFor } from '@vectrum/core/places';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, one, type Person, sqlList } from '../platform/index.js';
import type { FirstStepDto, FirstStepsDto } from './desk.dto.js';

interface Step extends Omit<FirstStepDto, 'done'> {
  /** True where it is done, for the sites in the one parameter or for the house. */
  sql: string;
}

const AT = 'site_id IN (?)';
const exists = (from: string) => `EXISTS (SELECT 1 FROM ${from} LIMIT 1)`;
const place = (kinds: readonly string[]) => exists(`place WHERE ${AT} AND blocked = 0 AND kind IN ${sqlList(kinds)}`);

/** What a new house needs until goods are scanned, and until the first parcel leaves, in the order in which it is best done. */
const STEPS: readonly Step[] = [
  { part: 'scan', key: 'bins', says: 'Bins to keep goods in', how: 'build aisles by a rule, or take a file in', link: '/shelves/aisles', optional: false, sql: place(kindsFor('shelf')) }, // prettier-ignore
  { part: 'scan', key: 'items', says: 'Items', how: 'take a spreadsheet in, or make the first by hand', link: '/setup/imports', optional: false, sql: exists('item') }, // prettier-ignore
  { part: 'scan', key: 'goods', says: 'Goods on the shelves', how: 'take opening stock in, or receive the first order', link: '/setup/imports', optional: false, sql: exists(`site_stock WHERE ${AT} AND on_hand > 0`) }, // prettier-ignore
  { part: 'scan', key: 'suppliers', says: 'A supplier to buy from', how: 'with a price list, so that orders are quick', link: '/inbound/suppliers/new', optional: true, sql: exists('supplier') }, // prettier-ignore
  { part: 'scan', key: 'people', says: 'People who work here', how: 'by mail, or with a badge and PIN', link: '/setup/people/new', optional: true, sql: '(SELECT COUNT(*) FROM person WHERE active = 1) > 1' }, // prettier-ignore
  { part: 'scan', key: 'devices', says: 'A phone or table that scans', how: 'enrol it with a code', link: '/setup/devices', optional: true, sql: exists(`device WHERE ${AT} AND revoked_at IS NULL`) }, // prettier-ignore
  { part: 'scan', key: 'scan', says: 'The first scan', how: 'receive, put away or pick on the floor', link: '/floor', optional: false, sql: `EXISTS (SELECT 1 FROM (SELECT how FROM movement ORDER BY id LIMIT 2000) m WHERE m.how = 'scanned')` }, // prettier-ignore
  { part: 'parcel', key: 'lane', says: 'A dispatch lane, a tote and a packing table', how: 'made on the form of places', link: '/shelves/places/new', optional: false, sql: ['dispatch-lane', 'tote', 'packing-table'].map((k) => (k === 'tote' ? exists(`place WHERE kind = 'tote'`) : place([k]))).join(' AND ') }, // prettier-ignore
  { part: 'parcel', key: 'boxes', says: 'A box to pack in', how: 'its inner size, and what it carries', link: '/setup/boxes/new', optional: false, sql: exists('carton') }, // prettier-ignore
  { part: 'parcel', key: 'carrier', says: 'A carrier', how: 'one with a system, or with services that you say', link: '/setup/carriers/new', optional: false, sql: exists(`carrier_lane c JOIN place p ON p.id = c.place_id WHERE p.${AT}`) }, // prettier-ignore
  { part: 'parcel', key: 'departure', says: 'When its van comes', how: 'the calendar of the site', link: '/setup/company', optional: true, sql: exists(`departure WHERE ${AT}`) }, // prettier-ignore
  { part: 'parcel', key: 'order', says: 'An order', how: 'key one, or connect a channel', link: '/orders/new', optional: false, sql: exists(`sales_order WHERE ${AT}`) }, // prettier-ignore
  { part: 'parcel', key: 'parcel', says: 'The first parcel leaves', how: 'pick, pack and hand over', link: '/picking', optional: false, sql: exists(`hand_over WHERE ${AT}`) }, // prettier-ignore
];

/** What is missing in a new house to the first scan and to the first parcel, ticked off by what is there. */
@Injectable()
export class FirstStepsQueries {
  constructor(private readonly source: DataSource) {}

  /** Empty once a parcel has left: by then the house knows its way. One round trip. */
  async steps(person: Person): Promise<FirstStepsDto> {
    const sites = [0, ...person.siteIds];
    const params = STEPS.flatMap((s) => (s.sql.match(/\?/g) ?? []).map(() => sites));
    const found = await one<Record<string, string | number>>(
      this.source,
      `SELECT ${STEPS.map((s) => `(${s.sql}) AS \`${s.key}\``).join(', ')}`,
      params,
    );
    const steps = STEPS.map(({ sql: _, ...s }): FirstStepDto => ({ ...s, done: num(found?.[s.key]) === 1 }));
    const isOver = steps.find((s) => s.key === 'parcel')?.done ?? false;
    return { steps: isOver ? [] : steps };
  }
}
