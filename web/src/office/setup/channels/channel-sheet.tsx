import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { ButtonLink, TextButton } from '../../../ui/button';
import { Words } from '../../../ui/field';
import { plural, when } from '../../../ui/format';
import { Acts, FilterLine } from '../../../ui/page';
import { SecretSection } from '../../../ui/secret-section';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { ChannelBeliefs } from './channel-beliefs';
import { ChannelListings } from './channel-listings';
import { ChannelMessages } from './channel-messages';
import { ChannelUnlisted } from './channel-unlisted';
import { TakeOrderFile } from './take-order-file';

type Channel = Dto['ChannelSheetDto'];
type Part = 'messages' | 'listings' | 'unlisted' | 'stock';

/** How a channel stands, in a word and why. */
function stands(c: Channel): [word: string, why: string | null] {
  if (c.paused) return ['left alone', null];
  const trouble = c.pollError ?? c.pushError;
  if (trouble) return ['no answer', trouble];
  if (!c.baseUrl) return [c.hasSecret ? 'it sends' : 'by hand', null];
  return ['connected', null];
}

/** What waits at a channel: to be told, and to be mended. */
function waits(c: Channel) {
  const told = [
    c.dueStock > 0 && plural(c.dueStock, 'figure', 'figures'),
    c.dueMessages > 0 && plural(c.dueMessages, 'message', 'messages'),
  ]
    .filter(Boolean)
    .join(', ');
  return {
    value: told === '' ? 'nothing' : `${told} to tell`,
    note: c.unread > 0 ? <Link to="/orders/unread">{plural(c.unread, 'message', 'messages')} to mend</Link> : undefined,
  };
}

/** One channel: how it stands, what was said, what it lists, and what it believes. */
export function ChannelSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const [part, setPart] = useState<Part>('messages');
  const query = useQuery({
    queryKey: key('channel', code),
    queryFn: () => ask(api.GET('/api/channels/{code}', { params: { path: { code } } })),
  });
  const again = useAct({
    act: (_: void, once) => ask(api.POST('/api/channels/{code}/try', { params: { path: { code } }, headers: once })),
  });
  const rights = me.data?.rights ?? [];
  const setUp = rights.includes('set-up');
  return (
    <ShownSheet query={query} back="/setup/channels">
      {(c) => {
        const [state, why] = stands(c);
        const isAsked = c.kind === 'web-shop' || c.kind === 'marketplace';
        const parts: { value: Part; says: string }[] = [
          { value: 'messages', says: 'Messages' },
          { value: 'listings', says: `Listings ${c.items.length}` },
          { value: 'unlisted', says: 'Not listed' },
          ...(isAsked && c.baseUrl ? [{ value: 'stock' as const, says: 'What it believes' }] : []),
        ];
        return (
          <Sheet address={`channels/${c.code}`} title={c.name} about={c.kind.replace('-', ' ')} back="/setup/channels">
            <Waybill
              cells={[
                { cap: 'State', value: <span className={why ? 'stamped' : ''}>{state}</span>, note: why ?? c.baseUrl ?? c.code },
                {
                  cap: 'Answered last',
                  value: c.answeredAt ? when(c.answeredAt) : 'never',
                  note: c.polledAt ? `asked ${when(c.polledAt)}` : '',
                },
                { cap: 'Waits', ...waits(c) },
                {
                  cap: 'Sells from',
                  value: c.siteIds.length > 1 ? plural(c.siteIds.length, 'site', 'sites') : c.site,
                  note: c.scarceUnder > 0 ? `${c.sharePercent} % of what is under ${c.scarceUnder}` : '',
                },
              ]}
            />
            {setUp && c.kind !== 'phone' && (
              <SecretSection
                label="Secret"
                says={
                  c.hasSecret
                    ? 'What is said is signed with a secret that both know.'
                    : 'It has no secret yet, so nothing that it sends is taken.'
                }
                word="secret"
                has={c.hasSecret}
                give={async (once) =>
                  (await ask(api.POST('/api/channels/{code}/secret', { params: { path: { code: c.code } }, headers: once }))).secret
                }
                signs="each order"
                address={`/api/channels/${c.code}/${c.kind === 'trade' ? 'documents' : 'webhook'}`}
                more={`What we ask of it is signed with the same. ${c.hasSecret ? 'The secret before this one is void.' : ''}`}
              />
            )}
            <FilterLine>
              <Words<Part> label="Part" value={part} words={parts} onChange={setPart} />
            </FilterLine>
            {part === 'messages' && <ChannelMessages channel={c.code} />}
            {part === 'listings' && <ChannelListings items={c.items} />}
            {part === 'unlisted' && <ChannelUnlisted channel={c.code} may={setUp} />}
            {part === 'stock' && <ChannelBeliefs channel={c.code} may />}
            <ProblemNote problem={again.error} />
            <Acts>
              {setUp && <ButtonLink to={`/setup/channels/${c.code}/edit`}>Change the channel</ButtonLink>}
              {setUp && isAsked && c.baseUrl && (
                <ButtonLink to={`/setup/channels/${c.code}/catalogue`}>Take over what it offers</ButtonLink>
              )}
              {c.baseUrl && (
                <TextButton type="button" disabled={again.isPending} onClick={() => again.mutate()}>
                  Try again now
                </TextButton>
              )}
              {rights.includes('order-desk') && <TakeOrderFile channel={c.code} />}
            </Acts>
            {c.folder && (
              <p className="note mt-2">
                Files of orders that are put into <span className="code break-all">{c.folder}</span> on the server are taken in by
                themselves.
              </p>
            )}
          </Sheet>
        );
      }}
    </ShownSheet>
  );
}
