import { Link } from 'react-router';
import { plural } from '../../../ui/format';
import type { BoardOrder } from './board-filter';
import { LyingDocket } from './docket';
import { GroupFrame } from './round-group';

/** What has to be done with the goods first. */
const CURES = { reserve: 'to be refilled', standing: 'to be put away', nowhere: 'to be looked for' } as const;

/** Orders that are promised but cannot be picked yet: their goods lie where nobody picks. They go once these are brought. */
export function Lacking({ orders }: { orders: readonly BoardOrder[] }) {
  if (orders.length === 0) return null;
  return (
    <GroupFrame
      title="Goods not in bins yet"
      note={
        <>
          {plural(orders.length, 'order', 'orders')}; <Link to="/shelves/to-refill">refill</Link> or{' '}
          <Link to="/shelves/to-put-away">put away</Link> first
        </>
      }
    >
      {orders.map((o) => (
        <LyingDocket key={o.code}>
          <b>{o.customer}</b>
          <span className="code">{o.code}</span>
          <span className="stamped">{o.lacks.map((l) => `${l.units} of ${l.item}, ${CURES[l.lies]}`).join('; ')}</span>
        </LyingDocket>
      ))}
    </GroupFrame>
  );
}
