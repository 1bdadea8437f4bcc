import { Link } from 'react-router';
import type { Dto } from '../../api/client';
import { age, plural, when } from '../../ui/format';
import { BlockHead } from '../../ui/page';
import { DenseTable } from '../../ui/table';

const AT: Readonly<Record<string, string>> = {
  released: 'waits to be picked',
  picking: 'is being picked',
  picked: 'waits to be packed',
  packed: 'stands in its lane',
};

/** How much later than promised an order leaves at the soonest. */
const lateBy = (o: Dto['MissedOrderDto']) => (o.nextAt ? `${age(o.promisedAt, Date.parse(o.nextAt))} late` : 'nothing leaves here');

/** What missed its van, and what that breaks: promises, and to whom they were made. */
export function MissedBlock({ missed }: { missed: readonly Dto['MissedOrderDto'][] }) {
  if (missed.length === 0) return null;
  const channels = [...new Set(missed.map((o) => o.channel))];
  return (
    <section className="mb-6" aria-label="Missed the van">
      <BlockHead className="items-center">
        <h2 className="stamped">{plural(missed.length, 'order has', 'orders have')} missed the van</h2>
        <span className="note" style={{ marginLeft: 0 }}>
          promised through {channels.join(', ')}
        </span>
      </BlockHead>
      <DenseTable>
        <thead>
          <tr>
            <th>Order</th>
            <th>Customer</th>
            <th>Channel</th>
            <th>Where it is</th>
            <th>Parcels</th>
            <th className="num">Promised</th>
            <th className="num">Leaves now</th>
            <th className="num">That is</th>
          </tr>
        </thead>
        <tbody>
          {missed.map((o) => (
            <tr key={o.code}>
              <td className="code">
                <Link to={`/orders/${o.code}`}>{o.code}</Link>
              </td>
              <td>{o.customer}</td>
              <td className="mid">{o.channel}</td>
              <td className="mid">{AT[o.state] ?? o.state}</td>
              <td className="code">{o.parcels ?? ''}</td>
              <td className="num stamped">{when(o.promisedAt)}</td>
              <td className="num">{o.nextAt ? when(o.nextAt) : ''}</td>
              <td className="num stamped">{lateBy(o)}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}

/** Closed parcels for which no carrier has been found: they stand at the table, in no lane. */
export function UnroutedBlock({ unrouted }: { unrouted: readonly Dto['UnroutedParcelDto'][] }) {
  if (unrouted.length === 0) return null;
  return (
    <section className="mb-6" aria-label="Without a carrier">
      <BlockHead className="items-center">
        <h2>{plural(unrouted.length, 'parcel waits', 'parcels wait')} for a carrier</h2>
        <span className="note" style={{ marginLeft: 0 }}>
          closed before any carrier had answered; each is asked again by itself, or choose one at the table
        </span>
      </BlockHead>
      <DenseTable>
        <tbody>
          {unrouted.map((p) => (
            <tr key={p.code}>
              <td className="code">
                <Link to={`/bench/${p.order}`}>{p.code}</Link>
              </td>
              <td>{p.customer}</td>
              <td className="code">{p.place}</td>
              <td className={p.trouble ? 'stamped' : 'mid'}>{p.trouble ?? 'asked for'}</td>
              <td className="num mid">{p.since ? age(p.since) : ''}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}
