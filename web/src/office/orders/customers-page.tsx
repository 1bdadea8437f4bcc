import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import { Link, useParams } from 'react-router';
import { api, ask } from '../../api/client';
import { useMe } from '../../api/queries';
import { ExportLinks } from '../../ui/export-links';
import { when } from '../../ui/format';
import { OpenRow } from '../../ui/open-row';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { Empty, Shown } from '../../ui/states';
import { ListPage, useBeside } from '../../ui/list-page';
import { FilterLine, BlockHead, Acts } from '../../ui/page';
import { TextLink, ButtonLink } from '../../ui/button';
import { DenseTable } from '../../ui/table';
import { OrdersWords } from './orders-words';
import { StatementActs } from './statement-acts';
import { MoreRows, useLongList } from '../../ui/long-list';

/** Customers with an account, with one open beside the list. */
export function CustomersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const me = useMe();
  const query = useLongList(key('customers'), (query) => ask(api.GET('/api/customers', { params: { query } })));
  return (
    <ListPage title="Customers" width={560}>
      <FilterLine>
        <OrdersWords here="/orders/customers" />
        <span className="flex gap-5 items-baseline">
          {!beside && <ExportLinks list="customers" />}
          {me.data?.rights.includes('order-desk') && <TextLink to="/orders/customers/new">New customer</TextLink>}
        </span>
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="No customers yet">Take in a file of them, or make the first one.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <th>Customer</th>
                  <th>Code</th>
                  <th>City</th>
                  {!beside && <th>Mail</th>}
                  {!beside && <th>Ring</th>}
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <OpenRow key={c.code} to={`/orders/customers/${c.code}`} open={c.code === open}>
                    <td>{c.name}</td>
                    <td className="code">{c.code}</td>
                    <td className="mid">{c.city}</td>
                    {!beside && <td className="mid">{c.email}</td>}
                    {!beside && <td className="mid">{c.phone}</td>}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['customer', 'customers']} />
    </ListPage>
  );
}

/** One customer with the orders that came from their address. */
export function CustomerSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('customer', code),
    queryFn: () => ask(api.GET('/api/customers/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/orders/customers">
      {(c) => (
        <Sheet address={`customers/${c.code}`} title={c.name} back="/orders/customers">
          <Waybill
            cells={[
              { cap: 'Code', value: <span className="code">{c.code}</span> },
              { cap: 'Ring', value: c.phone || 'no number', note: c.email },
              { cap: 'Send to', value: c.addressLine || 'no address', note: [c.city, c.postcode, c.country].filter(Boolean).join(', ') },
            ]}
          />
          {c.note && <p className="mt-3">{c.note}</p>}
          <BlockHead className="mt-4">
            <h2>Orders</h2>
            <span className="note">newest first</span>
          </BlockHead>
          {c.orders.length === 0 ? (
            <Empty title="No orders yet">Orders that come with this customer’s mail address appear here.</Empty>
          ) : (
            <DenseTable>
              <tbody>
                {c.orders.map((o) => (
                  <tr key={o.code}>
                    <td className="code">
                      <Link to={`/orders/${o.code}`}>{o.code}</Link>
                    </td>
                    <td>{o.state}</td>
                    <td className="mid">{when(o.placedAt)}</td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )}
          {me.data?.rights.includes('invoices') && <StatementActs account={c.code} email={c.email} />}
          {me.data?.rights.includes('order-desk') && (
            <Acts>
              <ButtonLink to={`/orders/customers/${c.code}/edit`}>Change the customer</ButtonLink>
            </Acts>
          )}
        </Sheet>
      )}
    </ShownSheet>
  );
}
