import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAddress } from '../../ui/address';
import { TextLink } from '../../ui/button';
import { ExportLinks } from '../../ui/export-links';
import { Words } from '../../ui/field';
import { Input, Select } from '../../ui/input';
import { ListPage, useBeside } from '../../ui/list-page';
import { MoreRows, useLongList } from '../../ui/long-list';
import { FilterLine } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { BulkActs } from './bulk-acts';
import { KeptViews } from './kept-views';
import { FLAT, GROUPINGS, type OrderView, paramsOf, SAYS, type Show, SHOWS, viewOf } from './order-views';
import { OrdersTable } from './orders-table';
import { OrdersWords } from './orders-words';

/** What narrows and groups the list, and a person's own views of it. */
function Narrowing({ view, onView, desk }: { view: OrderView; onView: (more: Partial<OrderView>) => void; desk: boolean }) {
  const channels = useQuery({ queryKey: key('channels'), queryFn: () => ask(api.GET('/api/channels')), enabled: desk });
  return (
    <FilterLine>
      <span className="flex gap-3 items-center">
        <Input
          aria-label="Customer"
          placeholder="Customer"
          className="w-[150px]"
          value={view.search}
          onChange={(e) => onView({ search: e.target.value })}
        />
        {desk && (
          <Select aria-label="Channel" className="w-[130px]" value={view.channel} onChange={(e) => onView({ channel: e.target.value })}>
            <option value="">all channels</option>
            {channels.data?.map((c) => (
              <option key={c.code} value={c.code}>
                {c.name}
              </option>
            ))}
          </Select>
        )}
        {!FLAT.has(view.show) && (
          <Select
            aria-label="Grouped by"
            className="w-[130px]"
            value={view.by}
            onChange={(e) => onView({ by: e.target.value as OrderView['by'] })}
          >
            {GROUPINGS.map((g) => (
              <option key={g} value={g}>
                by {g}
              </option>
            ))}
          </Select>
        )}
      </span>
      <KeptViews view={view} />
    </FilterLine>
  );
}

/** Sales orders by the departure they must catch, by customer or by channel, with one open beside them. */
export function OrdersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const me = useMe();
  const [params, change] = useAddress();
  const view = viewOf(params);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const query = useLongList(key('orders', view), (window) =>
    ask(api.GET('/api/orders', { params: { query: { ...window, ...paramsOf(view) } } })),
  );
  const rights = me.data?.rights ?? [];
  const desk = rights.includes('order-desk');
  const counts = query.data?.counts;
  const words = SHOWS.map((value) => {
    const n = counts && value in counts ? counts[value as keyof typeof counts] : undefined;
    return { value, says: SAYS[value], ...(n === undefined ? {} : { count: n }) };
  });
  const onView = (more: Partial<OrderView>) => {
    setChosen(new Set());
    change((p) => new URLSearchParams(paramsOf({ ...viewOf(p), ...more })));
  };
  const onChoose = (codes: readonly string[], on: boolean) =>
    setChosen((now) => new Set(on ? [...now, ...codes] : [...now].filter((c) => !codes.includes(c))));
  return (
    <ListPage title="Orders" width={668}>
      <FilterLine>
        <Words<Show> label="Show" value={view.show} words={words} onChange={(show) => onView({ show })} />
        {!beside && (
          <span className="flex gap-5 items-baseline">
            <ExportLinks list="orders" query={{ show: view.show === 'all' ? undefined : view.show }} />
            <OrdersWords here="/orders" />
            {desk && <TextLink to="/orders/new">Key an order</TextLink>}
          </span>
        )}
      </FilterLine>
      {!beside && <Narrowing view={view} onView={onView} desk={desk} />}
      {!beside && <BulkActs chosen={chosen} rights={rights} onDone={() => setChosen(new Set())} />}
      <Shown query={query} rows={16}>
        {({ rows: fitting }) =>
          fitting.length === 0 ? (
            <Empty title="No orders here">
              {view.show === 'all' && !view.search && !view.channel
                ? 'Orders come in from the channels by themselves; those that are rung in are keyed here.'
                : 'Show all to see the others.'}
            </Empty>
          ) : (
            <OrdersTable
              orders={fitting}
              open={open}
              show={view.show}
              by={view.by}
              chosen={chosen}
              onChoose={desk && !FLAT.has(view.show) ? onChoose : undefined}
            />
          )
        }
      </Shown>
      <MoreRows list={query} what={['order', 'orders']} />
    </ListPage>
  );
}
