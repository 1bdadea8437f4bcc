import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { Link, useLocation, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { day, dayWord, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { weightText } from '../../ui/units';
import { HoldForm } from './hold-form';
import { OrderActs } from './order-acts';
import { OrderHolds } from './order-holds';
import { OrderLines } from './order-lines';
import { OrderParcels } from './order-parcels';
import { OrderPast } from './order-past';
import { OrderSiblings } from './order-siblings';
import { OrderWays } from './order-ways';

type Order = Dto['OrderDto'];

/** When it is to leave, in the state that it is in. */
function promisedNote(o: Order): string {
  if (o.state === 'quote') return o.quotedUntil ? `a quote until ${dayWord(o.quotedUntil)}` : 'a quote';
  if (o.shippedAt) return `went ${day(o.shippedAt)}`;
  return `${o.leavesAt ? `van ${when(o.leavesAt)}, ` : ''}in since ${when(o.placedAt)}`;
}

const TURN: Readonly<Record<string, string>> = { '1': 'before others', '-1': 'after others' };

/** The invoices and credit notes about it, for whoever keeps the books a way there. */
function Invoices({ codes }: { codes: readonly string[] }) {
  const me = useMe();
  const mayOpen = me.data?.rights.includes('invoices') ?? false;
  return codes.map((code) => (
    <span key={code} className="code">
      {', '}
      {mayOpen ? <Link to={`/books/invoices/${code}`}>{code}</Link> : code}
    </span>
  ));
}

/** Where it goes and how the customer is reached. */
function Reach({ order }: { order: Order }) {
  return (
    <>
      {[order.addressLine, order.phone || order.email].filter(Boolean).join(', ')}
      {order.account && (
        <>
          {' '}
          <Link to={`/orders/customers/${order.account}`} className="code">
            {order.account}
          </Link>
        </>
      )}
    </>
  );
}

function Note({ says, text }: { says: string; text: string }) {
  return (
    <p className="mt-3 border-l-4 border-ink pl-3 py-1 bg-shade">
      <span className="note">{says}</span>
      <b className="block">{text}</b>
    </p>
  );
}

/** One sales order: lines with their stock and the sum behind it, what holds it, its parcels, and all that happened to it. */
export function OrderSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const said = useLocation().state as { floor?: string } | null;
  const query = useQuery({
    queryKey: key('order', code),
    queryFn: () => ask(api.GET('/api/orders/{code}', { params: { path: { code } } })),
    placeholderData: (was) => (was?.code === code ? was : undefined),
  });
  const desk = me.data?.rights.includes('order-desk') ?? false;
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
                note:
                  o.channelRef === o.code ? (
                    ''
                  ) : (
                    <>
                      their ref <span className="code">{o.channelRef}</span>
                    </>
                  ),
              },
              { cap: 'Promised', value: <span className={o.late ? 'stamped' : ''}>{when(o.promisedAt)}</span>, note: promisedNote(o) },
              { cap: 'To', value: `${o.city} ${o.postcode}`.trim() || 'no address', note: <Reach order={o} /> },
              {
                cap: 'Goods',
                value: moneyText(micro(o.worth)),
                note: (
                  <>
                    {[weightText(o.weightG), o.speed, o.wholeOnly ? 'only whole' : '', TURN[Math.sign(o.priority)]]
                      .filter(Boolean)
                      .join(', ')}
                    <Invoices codes={o.invoices} />
                    {o.returns.map((back) => (
                      <span key={back} className="code">
                        {', '}
                        <Link to={`/orders/returns/${back}`}>{back}</Link>
                      </span>
                    ))}
                  </>
                ),
              },
            ]}
          />
          {said?.floor && (
            <p role="status" className="mt-3 font-semibold">
              <Glyph name="half" /> The floor is asked: {said.floor}.
            </p>
          )}
          {o.notePacker && <Note says="Note to the packer" text={o.notePacker} />}
          {o.notePicker && <Note says="Note to the picker" text={o.notePicker} />}
          {o.cancelledWhy && <Note says={o.state === 'cancelled' ? 'Cancelled' : 'The rest was cancelled'} text={o.cancelledWhy} />}
          <OrderHolds order={o} may={desk} />
          <OrderLines order={o} may={desk} />
          {(o.state === 'open' || o.state === 'held') && o.lines.some((l) => !l.insert && l.reserved < l.wanted - l.shipped) && (
            <OrderWays order={o} />
          )}
          <OrderParcels parcels={o.parcels} />
          {o.holds.some((h) => h.own) && desk && <HoldForm key={o.version} order={o} />}
          {desk && (o.state === 'open' || o.state === 'held') && <OrderSiblings order={o} />}
          <OrderPast code={o.code} />
          <OrderActs order={o} />
        </Sheet>
      )}
    </ShownSheet>
  );
}
