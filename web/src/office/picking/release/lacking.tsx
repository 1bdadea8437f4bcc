import { Link } from 'react-router';
import { plural } from '../../../ui/format';
import type { BoardOrder } from './board-filter';

/** Orders that are promised but cannot be picked yet: their goods lie where nobody picks. */
export function Lacking({ orders }: { orders: readonly BoardOrder[] }) {
  if (orders.length === 0) return null;
  return (
    <section className="round-group" aria-label="Goods not in bins yet">
      <header>
        <span className="says">
          <b>Goods not in bins yet</b>
          <span className="mid">
            {plural(orders.length, 'order', 'orders')}; <Link to="/shelves/to-put-away">put away</Link> first
          </span>
        </span>
      </header>
      <ul>
        {orders.map((o) => (
          <li key={o.code} className="docket">
            <b>{o.customer}</b>
            <span className="code">{o.code}</span>
            <span className="stamped">{o.lacks.map((l) => `${l.units} of ${l.item}`).join(', ')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
