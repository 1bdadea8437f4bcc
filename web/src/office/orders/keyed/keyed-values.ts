import { decimalText, dividedBy, micro, times } from '@vectrum/core/money';
import { keptLine } from '@vectrum/core/orders';
import type { Dto } from '../../../api/client';

type Order = Dto['OrderDto'];
type Facts = Dto['GoodsFactsDto'];

export interface KeyedLine {
  /** The number of a line that is there already. */
  line: number | null;
  /** What is typed or chosen: a SKU once goods are chosen. */
  sku: string;
  factor: number;
  quantity: string;
  price: string;
}
export interface KeyedValues {
  account: string;
  customer: string;
  email: string;
  phone: string;
  addressLine: string;
  city: string;
  postcode: string;
  country: string;
  siteId: string;
  ref: string;
  /** As the field for a day and a time has it; empty for the first van. */
  promisedAt: string;
  speed: string;
  priority: string;
  wholeOnly: boolean;
  notePacker: string;
  notePicker: string;
  quote: boolean;
  quotedUntil: string;
  why: string;
  lines: KeyedLine[];
}

export const emptyKeyed: KeyedLine = { line: null, sku: '', factor: 1, quantity: '', price: '' };

export const freshOrder = (siteId: number, quote: boolean): KeyedValues => ({
  account: '',
  customer: '',
  email: '',
  phone: '',
  addressLine: '',
  city: '',
  postcode: '',
  country: 'GB',
  siteId: String(siteId),
  ref: '',
  promisedAt: '',
  speed: 'standard',
  priority: '0',
  wholeOnly: false,
  notePacker: '',
  notePicker: '',
  quote,
  quotedUntil: '',
  why: '',
  lines: [{ ...emptyKeyed }],
});

const two = (n: number) => String(n).padStart(2, '0');
/** An instant as a field for a day and a time takes it, on the clock of whoever looks. */
export function localTime(at: string): string {
  const d = new Date(at);
  return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}T${two(d.getHours())}:${two(d.getMinutes())}`;
}

/** An order as its form has it. */
export const valuesOf = (o: Order): KeyedValues => ({
  account: o.account ?? '',
  customer: o.customer,
  email: o.email,
  phone: o.phone,
  addressLine: o.addressLine,
  city: o.city,
  postcode: o.postcode,
  country: o.country,
  siteId: String(o.siteId),
  ref: o.channelRef,
  promisedAt: localTime(o.promisedAt),
  speed: o.speed,
  priority: String(o.priority),
  wholeOnly: o.wholeOnly,
  notePacker: o.notePacker ?? '',
  notePicker: o.notePicker ?? '',
  quote: o.state === 'quote',
  quotedUntil: o.quotedUntil ?? '',
  why: '',
  lines: o.lines
    .filter((l) => l.quantity > 0 && l.kit === null)
    .map((l) => ({
      line: l.line,
      sku: l.sku ?? '',
      factor: l.factor,
      quantity: String(l.quantity),
      price: plainPrice(l.price),
    })),
});

const plainPrice = (price: string) => price.replace(/(\.\d\d)0+$/, '$1');

/** What the server is sent. A time that was not touched is the order's own, to the second. */
export function bodyOf(v: KeyedValues, order: Order | undefined) {
  const isSame = order && v.promisedAt === localTime(order.promisedAt);
  return {
    account: v.account || null,
    customer: v.customer,
    email: v.email,
    phone: v.phone,
    addressLine: v.addressLine,
    city: v.city,
    postcode: v.postcode,
    country: v.country.toUpperCase(),
    siteId: Number(v.siteId),
    promisedAt: isSame ? order.promisedAt : v.promisedAt === '' ? null : new Date(v.promisedAt).toISOString(),
    speed: v.speed,
    priority: Number(v.priority),
    wholeOnly: v.wholeOnly,
    notePacker: v.notePacker,
    notePicker: v.notePicker,
    lines: v.lines
      .filter((l) => l.sku !== '' || l.line !== null)
      .map((l) => ({ ...l, quantity: l.quantity.replace(',', '.'), price: l.price.replace(',', '.') || '0' })),
  };
}

/** What a line comes to; null while it is not complete. */
export function lineSum(line: KeyedLine): { units: number; goods: bigint } | null {
  const price = line.price.replace(',', '.');
  if (!/^\d{1,10}(\.\d{1,6})?$/.test(price)) return null;
  const kept = keptLine({ quantity: line.quantity.replace(',', '.'), factor: line.factor, price });
  return kept && { units: kept.quantity * kept.factor, goods: times(micro(kept.price), kept.quantity) };
}

/** What one of a pack costs: the first price that is known for that pack, otherwise reckoned from the first of another. */
export function priceFor(facts: Pick<Facts, 'prices'>, factor: number): string {
  const exact = facts.prices.find((p) => p.factor === factor);
  if (exact) return plainPrice(exact.price);
  const other = facts.prices[0];
  if (!other) return '';
  const each = dividedBy(times(micro(other.price), factor), other.factor);
  // Pennies: nobody quotes less.
  return plainPrice(decimalText(times(dividedBy(each, 10_000), 10_000)));
}
