import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { ButtonLink, TextButton, TextLink } from '../../ui/button';
import { age, plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { MoreRows, useLongList } from '../../ui/long-list';
import { Page } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { ChooseCell, LinesTable } from '../../ui/table';
import { BooksWords } from './books-words';
import { TimetableLine } from './timetable-line';

type Row = Dto['OpenOrderDto'];

/** One customer's orders go on one invoice; an order without an account goes by its name. */
export const customerOf = (o: Pick<Row, 'account' | 'customer'>): string => o.account ?? `name:${o.customer}`;

export const checkPath = (codes: readonly string[]) => `/books/check?orders=${encodeURIComponent(codes.join(','))}`;

/** What left the house and is on no invoice yet: by customer, each to be looked at before it is posted. */
export function ToInvoicePage() {
  const me = useMe();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const query = useLongList(key('to-invoice'), (window) => ask(api.GET('/api/invoices/open', { params: { query: window } })));
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <Page aria-label="To invoice">
      <h1 className="sr">To invoice</h1>
      <BooksWords at="open" />
      <TimetableLine what="invoices" says="Invoiced" />
      <Shown query={query}>
        {({ rows }) => {
          const first = rows.find((r) => chosen.has(r.code));
          const toggle = (code: string, on: boolean) =>
            setChosen((was) => new Set(on ? [...was, code] : [...was].filter((c) => c !== code)));
          return rows.length === 0 ? (
            <Empty title="All that was delivered is invoiced">Orders show here once something of them has left the house.</Empty>
          ) : (
            <>
              <LinesTable>
                <thead>
                  <tr>
                    <td />
                    <th>Customer</th>
                    <th>Order</th>
                    <th>Left</th>
                    <th>Delivered</th>
                    <th className="num">To invoice</th>
                    <td />
                  </tr>
                </thead>
                <tbody>
                  {rows.map((o, i) => {
                    const theirs = rows.filter((x) => customerOf(x) === customerOf(o));
                    const isFirst = i === 0 || customerOf(rows[i - 1] ?? o) !== customerOf(o);
                    return (
                      <tr key={o.code}>
                        <ChooseCell
                          says={`Choose ${o.code}`}
                          checked={chosen.has(o.code)}
                          onChoose={(on) => {
                            // Orders of another customer are for another invoice.
                            if (on && first && customerOf(first) !== customerOf(o)) setChosen(new Set([o.code]));
                            else toggle(o.code, on);
                          }}
                        />
                        <td>
                          {isFirst && <b>{o.customer}</b>}
                          {isFirst && theirs.length > 1 && (
                            <span className="note">
                              <TextButton type="button" onClick={() => void navigate(checkPath(theirs.map((x) => x.code)))}>
                                One invoice for all {theirs.length}
                              </TextButton>
                            </span>
                          )}
                        </td>
                        <td className="code">
                          <Link to={`/orders/${o.code}`}>{o.code}</Link>
                        </td>
                        <td>{o.shippedAt ? `${age(o.shippedAt)} ago` : ''}</td>
                        <td>
                          <Glyph name={o.complete ? 'full' : 'half'} size={13} says />{' '}
                          {o.complete ? 'all of it' : `in part, ${plural(o.differing, 'line differs', 'lines differ')}`}
                        </td>
                        <td className="num">{money(o.amount)}</td>
                        <td className="num">
                          <TextLink to={checkPath([o.code])}>Look at it</TextLink>
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </LinesTable>
              {chosen.size > 0 && (
                <div className="flex flex-wrap gap-4 items-center mt-5">
                  <ButtonLink next to={checkPath(rows.filter((r) => chosen.has(r.code)).map((r) => r.code))}>
                    Look at one invoice for {plural(chosen.size, 'order', 'orders')} <Glyph name="go" size={13} />
                  </ButtonLink>
                  <TextButton type="button" onClick={() => setChosen(new Set())}>
                    Choose none
                  </TextButton>
                </div>
              )}
            </>
          );
        }}
      </Shown>
      <MoreRows list={query} what={['order', 'orders']} />
    </Page>
  );
}
