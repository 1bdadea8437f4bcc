import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import { micro, moneyText, priceText } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { Barcode } from '../../ui/barcode';
import { age, day, dayWord, plural } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { inHomeMoney } from './home-money';
import { OrderActs } from './order-acts';
import { LateHits } from './late-hits';
import { OrderAnswer, answerWords } from './order-answer';
import { SpokenAnswer } from './spoken-answer';
import { OrderFiles } from './order-files';
import { OrderHistory } from './order-history';
import { ReceivedStrip } from './received-strip';
import { NumberCell, PictureCell, GlyphCell, LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';

type Order = Dto['PurchaseOrderDto'];
type Line = Dto['PurchaseOrderLineDto'];

const rest = (l: Line) => l.ordered - l.closed - l.received;
const inUnits = (n: number, l: Line) => countOf(n, { name: l.unit, plural: l.units });

/** "1 pallet" where whole packs remain, otherwise base units. */
function restWords(l: Line): [string, string] {
  const left = rest(l);
  if (left === 0) return l.closed > 0 ? [`${inUnits(l.closed, l)} closed short`, ''] : ['all here', ''];
  if (left < 0) return [inUnits(l.received, l), `${-left} over`];
  const packs = left % l.factor === 0 ? countOf(left / l.factor, { name: l.pack, plural: l.packPlural }) : inUnits(left, l);
  return [`${packs} to come`, l.factor > 1 ? inUnits(left, l) : ''];
}

function LineRow({ line, currency, costs }: { line: Line; currency: string; costs: boolean }) {
  const [words, note] = restWords(line);
  const said = answerWords(line, currency);
  return (
    <tr>
      <NumberCell>{line.line}</NumberCell>
      <PictureCell>
        <Picture name={line.picture} size={32} />
      </PictureCell>
      <td>
        <b>
          <Link to={itemPath(line.sku)}>{line.name}</Link>
        </b>
        <span className="note code">{line.sku}</span>
        {said && <span className="note stamped">{said}</span>}
        {line.returned > 0 && <span className="note">{inUnits(line.returned, line)} sent back</span>}
      </td>
      <td className="num">
        <b>{countOf(line.packs, { name: line.pack, plural: line.packPlural })}</b>
        <span className="note">{inUnits(line.ordered, line)}</span>
      </td>
      <GlyphCell>
        <Glyph name={progressGlyph(line.received, line.ordered)} size={15} says />
      </GlyphCell>
      <td>
        <ReceivedStrip ordered={line.ordered} received={line.received} factor={line.factor} />
      </td>
      <td>
        <b>{words}</b>
        <span className={`note ${rest(line) < 0 ? 'stamped' : ''}`}>
          {line.expectedOn && rest(line) > 0 ? `due ${day(line.expectedOn)}` : note}
        </span>
      </td>
      {costs && (
        <>
          <td className="num">
            {moneyText(micro(line.price ?? '0'), currency)}
            <span className="note">a {line.pack}</span>
          </td>
          <td className="num">{priceText(micro(line.priceEach ?? '0'))}</td>
          <td className="num">{moneyText(micro(line.goods ?? '0'), currency)}</td>
        </>
      )}
    </tr>
  );
}

const ANSWERS: Readonly<Record<string, string>> = {
  acknowledged: ', came to the supplier',
  confirmed: ', confirmed',
  'to-settle': ', answered',
  queried: ', asked again',
  refused: ', refused',
};

function arrivals(o: Order) {
  if (o.arrivals.length === 0) return 'nothing here yet';
  return (
    <>
      {o.arrivals.map((code) => (
        <Link key={code} to={`/inbound/arrivals/${code}`} className="code">
          {code}{' '}
        </Link>
      ))}
      {o.firstReceivedAt && `since ${age(o.firstReceivedAt)}`}
    </>
  );
}

function about(order: Order): string {
  if (order.state === 'draft') return `Draft by ${order.createdBy}. The dock does not see it yet`;
  if (order.state === 'cancelled') return 'Cancelled';
  return order.placedAt ? `Purchase order, placed ${day(order.placedAt)} by ${order.placedBy ?? ''}` : '';
}

/** One purchase order: what was ordered in packs, what has come, prices both ways. */
export function PurchaseOrderSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const money = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')), staleTime: 60_000 });
  const query = useQuery({
    queryKey: key('purchase-order', code),
    queryFn: () => ask(api.GET('/api/purchase-orders/{code}', { params: { path: { code } } })),
    placeholderData: (was) => (was?.code === code ? was : undefined),
  });
  return (
    <ShownSheet query={query} back="/inbound">
      {(o) => {
        const costs = o.goods !== undefined;
        const late =
          (o.state === 'placed' || o.state === 'part-received') &&
          o.expectedOn !== null &&
          o.expectedOn < new Date().toISOString().slice(0, 10);
        return (
          <Sheet
            address={`inbound/${o.code}`}
            title={o.supplier}
            about={about(o)}
            code={o.code}
            back="/inbound"
            print={{ href: `/api/purchase-orders/${o.code}/pdf`, says: 'Print order' }}
          >
            <Waybill
              cells={[
                {
                  cap: 'Expected',
                  value: dayWord(o.expectedOn).replace(/^t/, 'T'),
                  note: late ? <span className="stamped">late</span> : `${o.state.replace('-', ' ')}${ANSWERS[o.answer] ?? ''}`,
                },
                {
                  cap: 'To',
                  value: o.door ? `${o.site}, ${o.door}` : o.site,
                  note: arrivals(o),
                },
                { cap: 'Ring', value: o.supplierPhone || 'no number', note: o.supplierEmail },
                ...(costs
                  ? [
                      {
                        cap: 'Goods',
                        value: moneyText(micro(o.goods ?? '0'), o.currency),
                        note: `${plural(o.lines.length, 'line', 'lines')}${inHomeMoney(o, money.data, me.data?.homeCurrency)}`,
                      },
                    ]
                  : [{ cap: 'Lines', value: String(o.lines.length) }]),
              ]}
            />
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <td />
                  <th>Line</th>
                  <th className="num">Ordered</th>
                  <td />
                  <th>Received, one mark a pack</th>
                  <td />
                  {costs && (
                    <>
                      <th className="num">Price</th>
                      <th className="num">
                        Price
                        <br />
                        each {o.currency}
                      </th>
                      <th className="num">Goods</th>
                    </>
                  )}
                </tr>
              </thead>
              <tbody>
                {o.lines.map((l) => (
                  <LineRow key={l.line} line={l} currency={o.currency} costs={costs} />
                ))}
              </tbody>
            </LinesTable>
            {o.charges?.map((c) => (
              <p key={c.says} className="mt-2">
                {c.says} {moneyText(micro(c.amount), o.currency)}
                <span className="note"> shared by {c.by}</span>
              </p>
            ))}
            {o.alike.length > 0 && (
              <p className="mt-3">
                <Glyph name="held" /> {o.alike.length === 1 ? 'An order' : 'Orders'} not long ago with the same goods:{' '}
                {o.alike.map((code) => (
                  <Link key={code} to={`/inbound/${code}`} className="code">
                    {code}{' '}
                  </Link>
                ))}
                . Place this one only if both are meant.
              </p>
            )}
            <OrderAnswer order={o} />
            {me.data?.rights.includes('buy') && <SpokenAnswer key={o.version} order={o} />}
            {o.note && <p className="note mt-3">{o.note}</p>}
            {(o.state === 'placed' || o.state === 'part-received') && (
              <div className="flex gap-4 items-center border-[1.5px] border-dashed border-ink-3 px-3 py-2 mt-5 self-start">
                <Barcode code={o.code} width={132} height={30} />
                <span>
                  <b>Scan to receive</b>
                  <span className="note block">Any phone opens this order</span>
                </span>
              </div>
            )}
            {costs && <OrderFiles order={o} />}
            {(o.state === 'placed' || o.state === 'part-received') && <LateHits order={o} />}
            <OrderHistory changes={o.changes} />
            <OrderActs order={o} />
          </Sheet>
        );
      }}
    </ShownSheet>
  );
}
