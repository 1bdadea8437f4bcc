import { key } from '../../api/keys';
import { Link, useMatch } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { micro, moneyText } from '@vectrum/core/money';
import { age, dayWord, plural } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { ExportLinks } from '../../ui/export-links';
import { Empty, Shown } from '../../ui/states';
import { GroupedList } from './grouped-list';
import { groupsOf } from './groups';
import { InboundWords } from './inbound-words';
import { TakeDocument } from './take-document';
import { today } from '../../api/site-day';
import { ListPage, useBeside } from '../../ui/list-page';
import { OpenItem } from '../../ui/open-row';
import { TextAnchor, TextLink } from '../../ui/button';
import { FilterLine } from '../../ui/page';
import { MoreRows, useLongList } from '../../ui/long-list';

type Row = Dto['PurchaseOrderRowDto'];

/** Answers that wait for the buyer. */
const TO_SETTLE: Readonly<Record<string, string>> = { 'to-settle': 'answered', refused: 'refused' };
/** Goods that should be here by today. */
const isExpected = (o: Row) => (o.state === 'placed' || o.state === 'part-received') && (o.expectedOn ?? '9') <= today();

/** `wide`: there is room for what it holds, how far it is, what it is worth, who wrote it, and whom to ring about late goods. */
function OrderRow({ order, open, wide }: { order: Row; open: boolean; wide: boolean }) {
  const to = `/inbound/${order.code}`;
  return (
    <OpenItem to={to} open={open} className={wide ? 'po-wide' : ''}>
      <Glyph name={order.state === 'placed' && order.late ? 'blocked' : progressGlyph(order.linesIn, order.lines)} size={14} says />
      <span>
        <Link to={to}>
          <b>{order.supplier}</b>
        </Link>
        <span className="note">
          <span className="code">{order.code}</span>
          {order.door && <span className="code"> at {order.door}</span>}
          {TO_SETTLE[order.answer] && <span className="stamped"> {TO_SETTLE[order.answer]}</span>}
        </span>
      </span>
      {wide && (
        <>
          <span className="mid truncate">{order.holds}</span>
          <span className="mid">
            {order.linesIn} of {plural(order.lines, 'line', 'lines')} in
          </span>
          <span className="num">{order.worth === undefined ? '' : moneyText(micro(order.worth), order.currency)}</span>
          <span className="mid truncate">{order.buyer}</span>
          <span className="note">
            {isExpected(order) && order.phone && (
              <>
                ring {order.ring} <TextAnchor href={`tel:${order.phone.replace(/[^+\d]/g, '')}`}>{order.phone}</TextAnchor>
              </>
            )}
          </span>
        </>
      )}
      <span className={`note ${order.late || order.state === 'part-received' ? 'stamped' : ''}`}>
        {order.state === 'part-received' && order.firstReceivedAt ? `waits ${age(order.firstReceivedAt)}` : dayWord(order.expectedOn)}
      </span>
    </OpenItem>
  );
}

/** Purchase orders by what forces action, with one open beside them. */
export function InboundPage() {
  const beside = useBeside();
  const orders = useLongList(key('purchase-orders'), (query) => ask(api.GET('/api/purchase-orders', { params: { query } })));
  const me = useMe();
  const open = useMatch('/inbound/:code/*')?.params.code;
  return (
    <ListPage title="Purchase orders" width={340} grouped>
      <FilterLine>
        <InboundWords here="orders" />
        {!beside && (
          <span className="flex flex-wrap gap-x-5 items-baseline">
            <ExportLinks list="purchase-orders" />
            {me.data?.rights.includes('buy') && (
              <>
                <TakeDocument />
                <TextLink to="/inbound/new">Write an order</TextLink>
              </>
            )}
          </span>
        )}
      </FilterLine>
      <Shown query={orders}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="No purchase orders yet">Write one: choose a supplier, then say how many trays, boxes or pallets.</Empty>
          ) : (
            <GroupedList
              groups={groupsOf(list, today())}
              row={(o) => <OrderRow key={o.code} order={o} open={o.code === open} wide={!beside} />}
            />
          )
        }
      </Shown>
      <MoreRows list={orders} what={['order', 'orders']} />
    </ListPage>
  );
}
