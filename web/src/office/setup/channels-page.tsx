import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { useState } from 'react';
import { Link, Outlet, useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, newKey, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { ExportLinks } from '../../ui/export-links';
import { Field } from '../../ui/field';
import { when, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { OpenRow } from '../../ui/open-row';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { readListings } from './listings';

/** The sales channels, with one open. */
export function ChannelsPage() {
  const { code: open } = useParams();
  const query = useQuery({ queryKey: key('channels'), queryFn: () => ask(api.GET('/api/channels')) });
  return (
    <div className="under-2" style={{ ['--list' as string]: '520px' }}>
      <section className="list" aria-label="Channels">
        <div className="filter">
          {!open && <ExportLinks list="channels" />}
          <span />
          <Link to="/setup/channels/new" className="act-link">
            New channel
          </Link>
        </div>
        <Shown query={query}>
          {(list) => (
            <table className="dense">
              <thead>
                <tr>
                  <th className="gl" />
                  <th>Channel</th>
                  <th>Kind</th>
                  <th>Ships from</th>
                  <th className="num">Listings</th>
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <OpenRow key={c.code} to={`/setup/channels/${c.code}`} open={c.code === open}>
                    <td className="gl">
                      <Glyph
                        name={c.pollError ? 'blocked' : c.baseUrl ? 'full' : 'empty'}
                        size={12}
                        says={c.pollError ?? (c.baseUrl ? 'connected' : 'by hand')}
                      />
                    </td>
                    <td>{c.name}</td>
                    <td className="mid">{c.kind.replace('-', ' ')}</td>
                    <td className="mid">{c.site}</td>
                    <td className="num">{whole(c.listings)}</td>
                  </OpenRow>
                ))}
              </tbody>
            </table>
          )}
        </Shown>
      </section>
      <Outlet />
    </div>
  );
}

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
          {c.items.length === 0 ? (
            <Empty title="Nothing is listed">Change the channel to list items under its own codes.</Empty>
          ) : (
            <table className="lines">
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
            </table>
          )}
          <div className="acts">
            <Link className="act" to={`/setup/channels/${c.code}/edit`}>
              Change the channel
            </Link>
          </div>
        </Sheet>
      )}
    </ShownSheet>
  );
}

const listingText = (c: Dto['ChannelSheetDto']) =>
  c.items.map((l) => [l.channelSku, l.sku, l.factor, l.keepBack, l.price.replace(/\.?0+$/, '')].join(', ')).join('\n');

/** Makes or changes a channel. */
export function ChannelForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: key('channel', code),
    queryFn: () => ask(api.GET('/api/channels/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !query.data) return <Shown query={query}>{() => null}</Shown>;
  return <Form key={query.data?.version ?? 'new'} channel={query.data} />;
}

function Form({ channel }: { channel: Dto['ChannelSheetDto'] | undefined }) {
  const me = useMe();
  const navigate = useNavigate();
  const [v, setV] = useState({
    code: channel?.code ?? '',
    name: channel?.name ?? '',
    kind: 'web-shop' as Dto['NewChannelDto']['kind'],
    baseUrl: channel?.baseUrl ?? '',
    listings: channel ? listingText(channel) : '',
  });
  const set = (key: keyof typeof v) => (e: { target: { value: string } }) => setV((was) => ({ ...was, [key]: e.target.value }));
  const save = useAct({
    act: async (_: void, once) => {
      const body = { name: v.name, baseUrl: v.baseUrl || null, listings: readListings(v.listings) };
      return ask(
        channel
          ? api.PUT('/api/channels/{code}', {
              params: { path: { code: channel.code } },
              headers: { ...once, ...ifMatch(channel.version) },
              body,
            })
          : api.POST('/api/channels', {
              body: {
                ...body,
                code: v.code,
                kind: v.kind,
                siteId: me.data?.sites[0]?.id ?? 1,
                secret: newKey(),
              },
              headers: once,
            }),
      );
    },
    onDone: (made) => {
      void navigate(`/setup/channels/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  return (
    <Sheet
      address={channel ? `channels/${channel.code}/edit` : 'channels/new'}
      title={channel ? `Change ${channel.name}` : 'New channel'}
      back="/setup/channels"
    >
      <form
        className="flex flex-col flex-1 gap-3 mt-3 max-w-[640px]"
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate();
        }}
      >
        <div className="grid grid-cols-2 gap-4">
          <Field label="Name" fault={fields['name']}>
            <input className="input" value={v.name} onChange={set('name')} autoFocus />
          </Field>
          <Field label="Code" fault={fields['code']}>
            <input className="input code" value={v.code} onChange={set('code')} readOnly={channel !== undefined} />
          </Field>
          {!channel && (
            <Field label="Kind">
              <select className="input" value={v.kind} onChange={set('kind')}>
                <option value="web-shop">web shop</option>
                <option value="marketplace">marketplace</option>
                <option value="trade">trade</option>
                <option value="phone">phone</option>
              </select>
            </Field>
          )}
          <Field label="Address it answers at" fault={fields['baseUrl']}>
            <input className="input" value={v.baseUrl} onChange={set('baseUrl')} placeholder="none: by hand" />
          </Field>
        </div>
        <Field label="Listings, one a line: their code, our SKU, holds, keep back, price" fault={fields['listings']}>
          <textarea className="input code" style={{ height: 240, padding: 8 }} value={v.listings} onChange={set('listings')} />
        </Field>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the channel <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}
