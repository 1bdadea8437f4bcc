/** A service of a carrier for one parcel: what it costs, as a decimal, and the working days that it takes. */
export interface Rate {
  price: string;
  days: number;
}

/** Working days that an order of each speed may be on its way; any other speed may take as long as it likes. */
const MOST_DAYS: Readonly<Record<string, number>> = { 'same-day': 0, express: 1, 'next-day': 1 };

/** Whether a service is fast enough for the speed that an order was sold with. */
export const keepsPromise = (rate: Pick<Rate, 'days'>, speed: string): boolean => rate.days <= (MOST_DAYS[speed] ?? Infinity);

/**
 * Services as they are proposed: those that keep the promise first, among them the cheapest, the faster of two that cost the same.
 * O(n log n).
 */
export function rankRates<R extends Rate>(rates: readonly R[], speed: string): (R & { keeps: boolean })[] {
  return rates
    .map((r) => ({ ...r, keeps: keepsPromise(r, speed) }))
    .sort((a, b) => Number(b.keeps) - Number(a.keeps) || Number(a.price) - Number(b.price) || a.days - b.days);
}
