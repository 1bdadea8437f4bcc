import { micro, priceText } from '@vectrum/core/money';
import type { ReactNode } from 'react';
import type { Dto } from '../../../api/client';
import { day, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';

export type ItemRow = Dto['ItemRowDto'];
export type ListField = Dto['ChangeFieldDto']['field'];

export interface ItemColumn {
  key: string;
  head: string;
  num?: true;
  cell: (r: ItemRow) => ReactNode;
  /** The server's name of the sort. */
  sort?: string;
  /** Cells that can be changed where they stand: the field, and what is in it now. */
  edit?: { field: ListField; value: (r: ItemRow) => string; site?: true };
  cost?: true;
}

/** What never had any stock is only listed: nothing about it is alarming. */
const availableClass = (r: ItemRow) => (!r.isStocked ? 'soft' : r.available <= 0 ? 'stamped' : 'strong');
const count = (n: number) => (n === 0 ? '' : whole(n));
const plainCost = (cost: string | null | undefined) => (cost ? cost.replace(/\.?0+$/, '') : '');

/** Every column that the list of items can show. */
export const ITEM_COLUMNS: readonly ItemColumn[] = [
  { key: 'name', head: 'Item', cell: (r) => r.name, sort: 'name', edit: { field: 'name', value: (r) => r.name } },
  { key: 'sku', head: 'SKU', cell: (r) => <span className="code">{r.sku}</span>, sort: 'sku' },
  { key: 'className', head: 'Class', cell: (r) => r.className, sort: 'class', edit: { field: 'className', value: (r) => r.className } },
  { key: 'tags', head: 'Tags', cell: (r) => r.tags.join(', ') },
  { key: 'suppliers', head: 'Suppliers', cell: (r) => r.suppliers },
  {
    key: 'home',
    head: 'Home',
    cell: (r) => <span className="code">{r.home}</span>,
    edit: { field: 'home', value: (r) => r.home ?? '', site: true },
  },
  { key: 'unit', head: 'Unit', cell: (r) => r.unit },
  {
    key: 'tracking',
    head: 'Tracked by',
    cell: (r) => ({ none: '', lot: 'lot', 'lot-expiry': 'lot and date', serial: 'serial' })[r.tracking] ?? r.tracking,
  },
  {
    key: 'onHand',
    head: 'On hand',
    num: true,
    cell: (r) => (r.isStocked ? whole(r.onHand) : <span className="soft">–</span>),
    sort: 'onHand',
  },
  { key: 'held', head: 'Held', num: true, cell: (r) => count(r.held) },
  { key: 'reserved', head: 'Reserved', num: true, cell: (r) => count(r.reserved) },
  {
    key: 'available',
    head: 'Available',
    num: true,
    cell: (r) => <span className={availableClass(r)}>{r.isStocked ? whole(r.available) : '–'}</span>,
    sort: 'available',
  },
  { key: 'incoming', head: 'On order', num: true, cell: (r) => count(r.incoming) },
  {
    key: 'cost',
    head: 'Cost, typed',
    num: true,
    cell: (r) => (r.cost ? priceText(micro(r.cost)) : ''),
    sort: 'cost',
    edit: { field: 'cost', value: (r) => plainCost(r.cost) },
    cost: true,
  },
  {
    key: 'bookedCost',
    head: 'Cost, booked',
    num: true,
    cell: (r) => (r.bookedCost ? priceText(micro(r.bookedCost)) : ''),
    cost: true,
  },
  {
    key: 'lacks',
    head: 'Lacks',
    cell: (r) =>
      r.lacks.length > 0 && (
        <>
          <Glyph name="held" size={12} /> {r.lacks.join(', ')}
        </>
      ),
  },
];

export const USUAL_COLUMNS = ['name', 'sku', 'className', 'onHand', 'reserved', 'available', 'incoming', 'home', 'lacks'];
/** Beside an open sheet there is room for these only. */
export const NARROW_COLUMNS = ['name', 'sku', 'onHand', 'available'];

const OWN = 'own:';

/** A column for each of the company's own fields. */
export const ownColumns = (fields: readonly Dto['ExtraFieldDto'][]): ItemColumn[] =>
  fields.map(({ name, kind }) => ({
    key: `${OWN}${name}`,
    head: name,
    ...(kind === 'number' ? { num: true as const } : {}),
    cell: (r) => (kind === 'date' && r.extra[name] ? day(r.extra[name]) : r.extra[name]),
  }));

/** The columns named, in their order, of all that there are; without those a person may not see. */
export function columnsOf(keys: readonly string[], seesCosts: boolean, all: readonly ItemColumn[] = ITEM_COLUMNS): ItemColumn[] {
  return keys.flatMap((k) => all.filter((c) => c.key === k && (!c.cost || seesCosts)));
}
