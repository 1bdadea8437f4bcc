import type { Dto } from '../../api/client';

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
  ];
  return groups.map(([name, fits]): [string, Row[]] => [name, orders.filter(fits)]).filter(([, list]) => list.length > 0);
}
