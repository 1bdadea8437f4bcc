import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { countOf } from '@vectrum/core/quantity';
import { Fragment } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { day, when, whole } from '../../ui/format';
import { weightText } from '../../ui/units';
import { Glyph, progressGlyph, type GlyphName } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote, Problem } from '../../ui/states';
import { SumRow, useWhy, WhyNumber, WhySum } from '../../ui/why';
import { HoldForm } from './hold-form';
import { OrderWays } from './order-ways';
import { LinesTable, PictureCell, GlyphCell } from '../../ui/table';
import { Acts, BlockHead } from '../../ui/page';
import { Button, ButtonLink, ButtonAnchor, TextAnchor } from '../../ui/button';

type Order = Dto['OrderDto'];
type Line = Dto['OrderLineDto'];

function lineState(l: Line): [GlyphName, string] {
  if (!l.sku) return ['blocked', 'unknown code'];
  if (l.shipped >= l.wanted) return ['full', 'gone'];
  if (l.packed > l.shipped) return ['most', `${l.packed} packed`];
  if (l.picked > l.shipped) return ['half', `${l.picked} picked`];
  if (l.reserved >= l.wanted) return ['full', 'reserved'];
  return [progressGlyph(l.reserved, l.wanted), l.reserved > 0 ? `${l.wanted - l.reserved} short` : 'short'];
}

function Lines({ order }: { order: Order }) {
  const why = useWhy();
  const [, sku = ''] = (why.open ?? '').split('|');
  const sum = useQuery({
    queryKey: key('why', sku, order.siteId),
    queryFn: () =>
      ask(
        api.GET('/api/items/{sku}/why/{figure}/{siteId}', {
          params: { path: { sku, figure: 'available', siteId: String(order.siteId) } },
        }),
      ),
    enabled: why.open !== null,
  });
  return (
    <LinesTable>
      <thead>
        <tr>
          <th colSpan={2}>Line</th>
          <th className="num">Wanted</th>
          <td />
          <th>Stock</th>
          <th className="num">Available at {order.site}</th>
        </tr>
      </thead>
      <tbody>
        {order.lines.map((l) => {
          const [glyph, words] = lineState(l);
          const key = `${l.line}|${l.sku ?? ''}`;
          return (
            <Fragment key={l.line}>
              <tr>
                <PictureCell>
                  <Picture name={l.picture} size={28} />
                </PictureCell>
                <td>
                  <b>{l.sku ? <Link to={`/shelves/items/${l.sku}`}>{l.name}</Link> : 'Unknown code'}</b>
                  <span className="note code">{l.sku ?? l.channelSku}</span>
                </td>
                <td className="num">
                  <b>{countOf(l.wanted, { name: l.unit ?? 'piece', plural: l.units ?? 'pieces' })}</b>
                </td>
                <GlyphCell>
                  <Glyph name={glyph} size={15} says={words} />
                </GlyphCell>
                <td className={words.includes('short') || glyph === 'blocked' ? 'stamped' : 'mid'}>{words}</td>
                <td className="num">
                  {l.sku && (
                    <WhyNumber label="Why this many available" open={why.open === key} onToggle={() => why.toggle(key)}>
                      {whole(l.free)}
                    </WhyNumber>
                  )}
                </td>
              </tr>
              {why.open === key && (
                <SumRow columns={6}>
                  <WhySum terms={sum.data} at={12} />
                </SumRow>
              )}
            </Fragment>
          );
        })}
      </tbody>
    </LinesTable>
  );
}

function OrderActs({ order }: { order: Order }) {
  const me = useMe();
  const release = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/orders/{code}/release', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
        }),
      ),
  });
  const rights = me.data?.rights ?? [];
  return (
    <>
      <ProblemNote problem={release.error} />
      <Acts>
        {order.state === 'open' && rights.includes('release') && (
          <Button type="button" next disabled={order.cannotRelease !== null || release.isPending} onClick={() => release.mutate()}>
            Send to picking <Glyph name="go" size={13} />
          </Button>
        )}
        {order.state === 'picked' && rights.includes('pack') && (
          <ButtonLink next to={`/bench/${order.code}`}>
            Pack it <Glyph name="go" size={13} />
          </ButtonLink>
        )}
        {order.state === 'released' && rights.includes('pick') && order.round && (
          <ButtonLink next to={`/floor/pick/${order.round}`}>
            Pick it <Glyph name="go" size={13} />
          </ButtonLink>
        )}
        <ButtonAnchor href={`/api/orders/${order.code}/packing-list`} target="_blank" rel="noreferrer">
          <Glyph name="print" /> Packing list
        </ButtonAnchor>
        {order.state === 'open' && order.cannotRelease && <span className="note">{order.cannotRelease}</span>}
      </Acts>
    </>
  );
}

/** One sales order: lines with their stock and the sum behind it, what holds it, its parcels. */
export function OrderSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('order', code),
    queryFn: () => ask(api.GET('/api/orders/{code}', { params: { path: { code } } })),
    placeholderData: (was) => (was?.code === code ? was : undefined),
  });
  return (
    <ShownSheet query={query} back={`/orders${window.location.search}`}>
      {(o) => (
        <Sheet
          address={`orders/${o.code}`}
          title={o.customer}
          about={o.state === 'held' ? undefined : o.state}
          code={o.code}
          back={`/orders${window.location.search}`}
          print={{ href: `/api/orders/${o.code}/packing-list`, says: 'Packing list' }}
        >
          <Waybill
            cells={[
              {
                cap: 'Channel',
                value: o.channel,
                note: (
                  <>
                    their ref <span className="code">{o.channelRef}</span>
                  </>
                ),
              },
              {
                cap: 'Promised',
                value: <span className={o.late ? 'stamped' : ''}>{when(o.promisedAt)}</span>,
                note: o.shippedAt
                  ? `went ${day(o.shippedAt)}`
                  : `${o.leavesAt ? `van ${when(o.leavesAt)}, ` : ''}in since ${when(o.placedAt)}`,
              },
              { cap: 'To', value: `${o.city} ${o.postcode}`.trim() || 'no address', note: o.addressLine },
              { cap: 'Weight', value: weightText(o.weightG), note: o.speed },
            ]}
          />
          {o.notePacker && (
            <p className="mt-3 border-l-4 border-ink pl-3 py-1 bg-shade">
              <span className="note">Note to the packer</span>
              <b className="block">{o.notePacker}</b>
            </p>
          )}
          {o.state === 'held' && (
            <Problem>
              <Glyph name="held" size={18} />
              <p>Held: {o.holdReason}</p>
            </Problem>
          )}
          <Lines order={o} />
          {(o.state === 'open' || o.state === 'held') && o.lines.some((l) => l.reserved < l.wanted - l.shipped) && <OrderWays order={o} />}
          {o.parcels.length > 0 && (
            <>
              <BlockHead className="mt-4">
                <h2>Parcels</h2>
              </BlockHead>
              {o.parcels.map((p) => (
                <div key={p.code} className="flex gap-4 items-baseline border-b border-rule py-1">
                  <span className="code">{p.code}</span>
                  <span>{p.carrier}</span>
                  <span className="code">{p.tracking}</span>
                  <span className="mid">{p.weightG ? weightText(p.weightG) : ''}</span>
                  <span className="mid ml-auto">
                    {{
                      open: 'being packed',
                      'label-asked': 'label asked for',
                      labelled: 'waits for its van',
                      gone: 'gone',
                    }[p.state] ?? p.state}
                  </span>
                  {p.tracking && (
                    <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer">
                      Label
                    </TextAnchor>
                  )}
                </div>
              ))}
            </>
          )}
          {o.state === 'held' && me.data?.rights.includes('order-desk') && <HoldForm key={o.version} order={o} />}
          <OrderActs order={o} />
        </Sheet>
      )}
    </ShownSheet>
  );
}
