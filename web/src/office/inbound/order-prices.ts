import { moreForNothing, palletsOf, priceFor, shortOfMinimum, type ListPrice } from '@vectrum/core/buying';
import { decimalText, dividedBy, micro, moneyText, times } from '@vectrum/core/money';
import type { Dto } from '../../api/client';
import { type FormLine, lineSum } from './line-sum';

type SupplierItem = Dto['SupplierItemDto'];
type Supplier = Dto['SupplierSheetDto'];

const trimmed = (price: string) => price.replace(/(\.\d\d)0+$/, '$1');

/** The supplier's list for a pack of an item: its breaks hold only for the pack that it is listed in. */
export function listFor(item: SupplierItem | undefined, factor: number): ListPrice | null {
  const listed = item?.packs.find((p) => p.id === item.packId);
  if (!item?.price || !listed) return null;
  if (listed.factor === factor)
    return { price: trimmed(item.price), breaks: (item.breaks ?? []).map((b) => ({ from: b.from, price: trimmed(b.price) })) };
  return { price: trimmed(decimalText(times(dividedBy(micro(item.price), listed.factor), factor))), breaks: [] };
}

const count = (packs: string) => (/^\d+$/.test(packs) ? Number(packs) : 0);

/** The listed price of so many packs; empty where the supplier lists none. */
export function listedPrice(item: SupplierItem | undefined, factor: number, packs: string): string {
  const list = listFor(item, factor);
  return list ? priceFor(list, count(packs)).price : '';
}

/** A line with other figures; its price follows the list unless somebody has typed another. */
export function followList(item: SupplierItem | undefined, was: FormLine, next: FormLine): FormLine {
  const typed = was.price !== '' && was.sku === next.sku && was.price !== listedPrice(item, was.factor, was.packs);
  return typed ? next : { ...next, price: listedPrice(item, next.factor, next.packs) };
}

/** Why the price is what it is, and what more packs would bring. */
export function priceHint(item: SupplierItem | undefined, line: FormLine, currency: string): string {
  const list = listFor(item, line.factor);
  const packs = count(line.packs);
  if (!list || packs < 1 || !/^\d{1,10}(\.\d{1,6})?$/.test(line.price)) return '';
  const found = priceFor(list, packs);
  const money = (price: string) => moneyText(micro(price), currency);
  if (micro(found.price) !== micro(line.price)) return `listed at ${money(found.price)}`;
  const from = found.from > 1 ? `price from ${found.from}` : '';
  if (!found.next) return from;
  const more = `${found.next.more} more: ${money(found.next.price)}`;
  return [from, moreForNothing(found, packs) ? `${more}, for no more in all` : more].filter(Boolean).join('; ');
}

/** What the order lacks of the supplier's least, in words; empty where it is enough. */
export function minimumWords(supplier: Supplier | undefined, lines: readonly FormLine[]): string[] {
  if (!supplier) return [];
  const done = lines.flatMap((l) => {
    const sum = lineSum(l);
    return sum ? [{ ...sum, packs: supplier.items.find((i) => i.sku === l.sku)?.packs ?? [] }] : [];
  });
  const size = {
    value: decimalText(done.reduce((sum, l) => sum + l.goods, 0n)),
    units: done.reduce((sum, l) => sum + l.units, 0),
    pallets: done.reduce((sum, l) => sum + palletsOf(l.units, l.packs), 0),
  };
  const least = { value: supplier.leastValue, units: supplier.leastUnits, pallets: supplier.leastPallets };
  return shortOfMinimum(size, least).map(({ of, least: asked, missing }) =>
    of === 'value'
      ? `${moneyText(micro(missing), supplier.currency)} short of the least value, ${moneyText(micro(asked), supplier.currency)}`
      : `${missing} ${missing === '1' ? of.slice(0, -1) : of} short of the least, ${asked}`,
  );
}
