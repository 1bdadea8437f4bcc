import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { when, whole } from '../../../ui/format';
import { SecretSection } from '../../../ui/secret-section';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { Empty } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';
import { Acts } from '../../../ui/page';
import { ButtonLink } from '../../../ui/button';

/** One channel: how it is reached, what it lists, what it was told of stock. */
export function ChannelSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('channel', code),
    queryFn: () => ask(api.GET('/api/channels/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/setup/channels">
      {(c) => (
        <Sheet address={`channels/${c.code}`} title={c.name} back="/setup/channels">
          <Waybill
            cells={[
              { cap: 'Kind', value: c.kind.replace('-', ' '), note: c.code },
              { cap: 'Ships from', value: c.site },
              {
                cap: 'Asked last',
                value: c.polledAt ? when(c.polledAt) : 'never',
                note: c.pollError ? <span className="stamped">{c.pollError}</span> : (c.baseUrl ?? 'no connection'),
              },
            ]}
          />
          {(c.kind === 'web-shop' || c.kind === 'marketplace') && (
            <SecretSection
              label="Secret"
              says={
                c.hasSecret
                  ? 'It signs what it sends with a secret that both know.'
                  : 'It has no secret yet, so nothing that it sends is taken.'
              }
              word="secret"
              has={c.hasSecret}
              give={async (once) =>
                (await ask(api.POST('/api/channels/{code}/secret', { params: { path: { code: c.code } }, headers: once }))).secret
              }
              signs="each order"
              address={`/api/channels/${c.code}/webhook`}
              more={`What we ask of it is signed with the same. ${c.hasSecret ? 'The secret before this one is void.' : ''}`}
            />
          )}
          {c.items.length === 0 ? (
            <Empty title="Nothing is listed">Change the channel to list items under its own codes.</Empty>
          ) : (
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
                {c.items.map((l) => (
                  <tr key={l.channelSku} style={{ height: 30 }}>
                    <td className="code">{l.channelSku}</td>
                    <td>
                      <Link to={`/shelves/items/${l.sku}`}>{l.name}</Link>
                    </td>
                    <td className="num">{l.factor}</td>
                    <td className="num mid">{l.keepBack || ''}</td>
                    <td className="num">{Number(l.price).toFixed(2)}</td>
                    <td className="num strong">{l.told === null ? '–' : whole(l.told)}</td>
                  </tr>
                ))}
              </tbody>
            </LinesTable>
          )}
          <Acts>
            <ButtonLink to={`/setup/channels/${c.code}/edit`}>Change the channel</ButtonLink>
          </Acts>
        </Sheet>
      )}
    </ShownSheet>
  );
}
