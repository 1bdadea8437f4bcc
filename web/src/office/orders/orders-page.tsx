import { key } from '../../api/keys';
import { useParams, useSearchParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { TextLink } from '../../ui/button';
import { ExportLinks } from '../../ui/export-links';
import { Words } from '../../ui/field';
import { micro, moneyText } from '@vectrum/core/money';
import { plural, when } from '../../ui/format';
import { Glyph, orderGlyph, Pips } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { byDeparture } from '../../ui/by-departure';
import { DepartureRow } from '../../ui/departure-row';
import { ListPage, useBeside } from '../../ui/list-page';
import { OpenRow } from '../../ui/open-row';
import { DenseTable, GlyphCell } from '../../ui/table';
import { OrdersWords } from './orders-words';
import { FilterLine } from '../../ui/page';
import { MoreRows, useLongList } from '../../ui/long-list';

type Row = Dto['OrderRowDto'];
const SHOWS = ['all', 'ready', 'short', 'stuck', 'quotes', 'gone', 'cancelled'] as const;
type Show = (typeof SHOWS)[number];
const SAYS: Readonly<Record<Show, string>> = {
  all: 'All',
  ready: 'Ready',
  short: 'Short',
  stuck: 'Stuck',
  quotes: 'Quotes',
  gone: 'Gone',
  cancelled: 'Cancelled',
};
/** Orders that are over or not begun have no van to catch: one list, newest first. */
const FLAT: ReadonlySet<Show> = new Set(['quotes', 'gone', 'cancelled']);

function OrderTable({ orders, open, show }: { orders: Row[]; open: string | undefined; show: Show }) {
  const beside = useBeside();
  const groups = FLAT.has(show)
    ? [{ key: show, title: SAYS[show], note: plural(orders.length, 'order', 'orders'), list: orders }]
    : byDeparture(orders, ['order', 'orders']);
  return (
    <DenseTable>
      <thead>
        <tr>
          <GlyphCell />
          <th>Order</th>
          <th>Customer</th>
          <th>Channel</th>
          <th>Promised</th>
          <th>Stock for each line</th>
          {!beside && (
            <>
              <th className="max-[1180px]:hidden">Holds</th>
              <th className="num max-[1180px]:hidden">Worth</th>
              <th>How far, and who</th>
            </>
          )}
        </tr>
      </thead>
      {groups.map((g) => (
        <tbody key={g.key}>
          <DepartureRow group={g} columns={beside ? 6 : 9} />
          {g.list.map((o) => {
            return (
              <OpenRow key={o.code} to={`/orders/${o.code}${window.location.search}`} open={o.code === open}>
                <GlyphCell>
                  <Glyph name={orderGlyph(o.state, o.state === 'held' || o.late)} size={14} says={o.state} />
                </GlyphCell>
                <td className="code">{o.code}</td>
                <td className="max-w-[170px] overflow-hidden text-ellipsis">{o.customer}</td>
                <td className="mid">{o.channel}</td>
                <td className={o.late ? 'stamped' : ''}>{when(o.promisedAt)}</td>
                <td>
                  <Pips lines={o.stock} />
                </td>
                {!beside && (
                  <>
                    <td className="mid max-w-[260px] overflow-hidden text-ellipsis max-[1180px]:hidden">{o.holds}</td>
                    <td className="num max-[1180px]:hidden">{moneyText(micro(o.worth))}</td>
                    <td className="mid max-w-[240px] overflow-hidden text-ellipsis">
                      {o.holdReason ?? [o.state === 'open' ? '' : o.state, o.who].filter(Boolean).join(', ')}
                    </td>
                  </>
                )}
              </OpenRow>
            );
          })}
        </tbody>
      ))}
    </DenseTable>
  );
}

/** Sales orders by the departure they must catch, with one open beside them. */
export function OrdersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const [params, setParams] = useSearchParams();
  const show = (params.get('show') ?? 'all') as Show;
  const query = useLongList(key('orders', show), (window) => ask(api.GET('/api/orders', { params: { query: { ...window, show } } })));
  const me = useMe();
  const counts = query.data?.counts;
  const words = SHOWS.map((value) => {
    const n = value === 'all' || value === 'ready' || value === 'short' || value === 'stuck' ? counts?.[value] : undefined;
    return { value, says: SAYS[value], ...(n === undefined ? {} : { count: n }) };
  });
  return (
    <ListPage title="Orders" width={668}>
      <FilterLine>
        <Words<Show>
          label="Show"
          value={show}
          words={words}
          onChange={(v) => setParams(v === 'all' ? {} : { show: v }, { replace: true })}
        />
        {!beside && (
          <span className="flex gap-5 items-baseline">
            <ExportLinks list="orders" query={{ show: show === 'all' ? undefined : show }} />
            <OrdersWords here="/orders" />
            {me.data?.rights.includes('order-desk') && <TextLink to="/orders/new">Key an order</TextLink>}
          </span>
        )}
      </FilterLine>
      <Shown query={query} rows={16}>
        {({ rows: fitting }) =>
          fitting.length === 0 ? (
            <Empty title="No orders here">
              {show === 'all'
                ? 'Orders come in from the channels by themselves; those that are rung in are keyed here.'
                : 'Show all to see the others.'}
            </Empty>
          ) : (
            <OrderTable orders={fitting} open={open} show={show} />
          )
        }
      </Shown>
      <MoreRows list={query} what={['order', 'orders']} />
    </ListPage>
  );
}
