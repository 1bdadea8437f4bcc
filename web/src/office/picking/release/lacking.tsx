import { Link } from 'react-router';
import { plural } from '../../../ui/format';
import type { BoardOrder } from './board-filter';
import { LyingDocket } from './docket';
import { GroupFrame } from './round-group';

/** Orders that are promised but cannot be picked yet: their goods lie where nobody picks. */
export function Lacking({ orders }: { orders: readonly BoardOrder[] }) {
  if (orders.length === 0) return null;
  return (
    <GroupFrame
      title="Goods not in bins yet"
      note={
        <>
          {plural(orders.length, 'order', 'orders')}; <Link to="/shelves/to-put-away">put away</Link> first
        </>
      }
    >
      {orders.map((o) => (
        <LyingDocket key={o.code}>
          <b>{o.customer}</b>
          <span className="code">{o.code}</span>
          <span className="stamped">{o.lacks.map((l) => `${l.units} of ${l.item}`).join(', ')}</span>
        </LyingDocket>
      ))}
    </GroupFrame>
  );
}
