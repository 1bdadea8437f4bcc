import type { Dto } from '../../api/client';
import { day } from '../../ui/format';
import { dayAt, today } from '../../api/site-day';

type Row = Dto['PurchaseOrderRowDto'];

/** What forces action first: at the door, late, today, later, drafts, in. */
export function groupsOf(orders: Row[], date: string): [string, Row[]][] {
  const groups: [string, (o: Row) => boolean][] = [
    ['At the door', (o) => o.state === 'part-received'],
    ['Late', (o) => o.state === 'placed' && o.late],
    ['Today', (o) => o.state === 'placed' && o.expectedOn === date],
    ['Later', (o) => o.state === 'placed' && !o.late && o.expectedOn !== date],
    ['Draft', (o) => o.state === 'draft'],
    ['All in', (o) => o.state === 'received'],
    ['Over', (o) => o.state === 'closed' || o.state === 'cancelled'],
  ];
  return groups.map(([name, fits]): [string, Row[]] => [name, orders.filter(fits)]).filter(([, list]) => list.length > 0);
}

/** Arrivals by what forces action: at the door, announced and late, announced, then closed ones day by day. */
export function arrivalGroups(list: Dto['ArrivalRowDto'][], now: Date): [string, Dto['ArrivalRowDto'][]][] {
  const day0 = today(now);
  const nameOf = (a: Dto['ArrivalRowDto']) => {
    if (a.state === 'open') return 'At the door';
    if (a.state === 'announced') return a.late ? 'Announced, late' : 'Announced';
    const on = a.closedAt ? dayAt(a.closedAt) : '';
    if (!a.openedAt) return 'Did not come';
    return on === day0 ? 'Received today' : `Received ${day(on)}`;
  };
  const groups = new Map<string, Dto['ArrivalRowDto'][]>();
  for (const a of list) groups.set(nameOf(a), [...(groups.get(nameOf(a)) ?? []), a]);
  return [...groups];
}
