import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { when, whole } from '../../../ui/format';
import { NewSecret } from '../../../ui/new-secret';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { Empty, ProblemNote } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';
import { Acts } from '../../../ui/page';
import { ButtonLink, TextButton } from '../../../ui/button';

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
          {(c.kind === 'web-shop' || c.kind === 'marketplace') && <Secret of={c} />}
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

/** Whether the channel can sign what it sends, and a new secret for it, shown once. */
function Secret({ of: c }: { of: Dto['ChannelSheetDto'] }) {
  const give = useAct({
    act: (_: void, once) => ask(api.POST('/api/channels/{code}/secret', { params: { path: { code: c.code } }, headers: once })),
  });
  return (
    <section className="mt-2" aria-label="Secret">
      <p>
        {c.hasSecret
          ? 'It signs what it sends with a secret that both know. '
          : 'It has no secret yet, so nothing that it sends is taken. '}
        <TextButton type="button" disabled={give.isPending} onClick={() => give.mutate()}>
          {c.hasSecret ? 'Give it a new secret' : 'Give it a secret'}
        </TextButton>
      </p>
      <NewSecret secret={give.data?.secret}>
        It signs each order with HMAC-SHA256 in X-Signature and posts it to{' '}
        <span className="code">
          {window.location.origin}/api/channels/{c.code}/webhook
        </span>
        . What we ask of it is signed with the same. {c.hasSecret && 'The secret before this one is void.'}
      </NewSecret>
      <ProblemNote problem={give.error} />
    </section>
  );
}
