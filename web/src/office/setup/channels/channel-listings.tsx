import { Link } from 'react-router';
import type { Dto } from '../../../api/client';
import { whole } from '../../../ui/format';
import { Empty } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';
import { itemPath } from '../../item-path';

/** What a channel sells under its own codes. */
export function ChannelListings({ items }: { items: Dto['ListingDto'][] }) {
  if (items.length === 0)
    return (
      <Empty title="Nothing is listed">Take over what the channel offers, or change the channel to list items under its own codes.</Empty>
    );
  return (
    <LinesTable>
      <thead>
        <tr>
          <th>Its code</th>
          <th>Our item</th>
          <th className="num">Holds</th>
          <th className="num">Keep back</th>
          <th className="num">Price</th>
          <th className="num">Told</th>
        </tr>
      </thead>
      <tbody>
        {items.map((l) => (
          <tr key={l.channelSku} style={{ height: 30 }}>
            <td className="code">{l.channelSku}</td>
            <td>
              <Link to={itemPath(l.sku)}>{l.name}</Link>
            </td>
            <td className="num">{l.factor}</td>
            <td className="num mid">{l.keepBack || ''}</td>
            <td className="num">{Number(l.price).toFixed(2)}</td>
            <td className="num strong">{l.told === null ? '–' : whole(l.told)}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}
