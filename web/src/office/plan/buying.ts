import type { Dto } from '../../api/client';

export type Line = Dto['BuyingLineDto'];
export type Supplier = Dto['BuyingSupplierDto'];

/** What somebody has chosen of the proposals: packs by line where they are not as proposed, and lines that are left out. */
export interface Choices {
  packs: Readonly<Record<string, string>>;
  left: ReadonlySet<string>;
}

export const lineKey = (supplier: string, sku: string): string => `${supplier}/${sku}`;

/** As it is proposed, without what is asked for from suppliers who take no orders today. */
export const firstChoices = ({ today, suppliers }: { today: string; suppliers: readonly Supplier[] }): Choices => ({
  packs: {},
  left: new Set(suppliers.flatMap((s) => (s.orderOn > today ? s.lines.map((l) => lineKey(s.code, l.sku)) : []))),
});

/** Packs of a line as it stands in its field: whole and not below nought; null where what is typed is none. */
export function packsOf({ packs }: Choices, supplier: string, line: Line): number | null {
  const typed = packs[lineKey(supplier, line.sku)];
  if (typed === undefined) return line.units / line.factor;
  return /^\d{1,6}$/.test(typed.trim()) ? Number(typed) : null;
}

/** Lines of a supplier that would be ordered, with how many packs. */
export function takenOf(choices: Choices, supplier: Supplier): { line: Line; packs: number }[] {
  return supplier.lines.flatMap((line) => {
    const packs = packsOf(choices, supplier.code, line);
    return packs !== null && packs > 0 && !choices.left.has(lineKey(supplier.code, line.sku)) ? [{ line, packs }] : [];
  });
}

/** What an order comes to in the supplier's currency, as far as prices are seen. Lower prices for more are not counted in. */
export const worthOf = (taken: readonly { line: Line; packs: number }[]): number =>
  taken.reduce((sum, { line, packs }) => sum + packs * Number(line.price ?? 0), 0);

/** Days that what is free, what is coming and what is ordered last; null where nothing is asked for. */
export function lastsDays(line: Line, packs: number): number | null {
  return line.weekMean > 0 ? Math.max(0, Math.round(((line.free + line.onOrder + packs * line.factor) / line.weekMean) * 7)) : null;
}

/** What a supplier's least order still lacks, in words; '' where it is enough. */
export function lacksOf(supplier: Supplier, taken: readonly { line: Line; packs: number }[]): string {
  if (taken.length === 0) return '';
  const worth = worthOf(taken);
  const units = taken.reduce((n, t) => n + t.packs * t.line.factor, 0);
  const least = Number(supplier.leastValue ?? 0);
  if (least > 0 && worth < least) return `${(least - worth).toFixed(2)} ${supplier.currency} short of the least order`;
  if (supplier.leastUnits !== null && units < supplier.leastUnits) return `${supplier.leastUnits - units} units short of the least order`;
  return '';
}

/** Why a line is there, in a sentence: what happens without it. */
export function withoutIt(line: Line, dayOf: (date: string) => string): string {
  const parts: string[] = [];
  if (line.broken > 0) parts.push(`${line.broken} promised to customers would be late`);
  if (line.runsOutOn !== null) parts.push(`runs out ${dayOf(line.runsOutOn)}`);
  if (line.late > 0) parts.push(`${line.late} on order are overdue`);
  if (!line.isDue) parts.unshift('not due yet');
  return parts.join(', ');
}
