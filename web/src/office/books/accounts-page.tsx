import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Days, useAsked } from '../../ui/asked';
import { Button } from '../../ui/button';
import { Input } from '../../ui/input';
import { BlockHead, Page, Sentence } from '../../ui/page';
import { ProblemNote, Shown } from '../../ui/states';
import { DenseTable, LinesTable } from '../../ui/table';
import { BooksWords } from './books-words';
import { PeriodsBlock } from './periods-block';

type Accounts = Dto['AccountsDto'];
/** What an account is called in the company's own chart. */
type Named = Pick<Accounts['accounts'][number], 'number' | 'name'>;

/** What stands on each account, and which account of the company's own chart it is. */
export function AccountsPage() {
  const { asked, put } = useAsked();
  const [from, to] = [asked('from'), asked('to')];
  const query = useQuery({
    queryKey: key('accounts', from, to),
    queryFn: () => ask(api.GET('/api/journal/accounts', { params: { query: { from, to } } })),
  });
  return (
    <Page aria-label="Accounts">
      <h1 className="sr">Accounts</h1>
      <BooksWords at="accounts" />
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-3">
        <Days asked={asked} put={put} />
      </div>
      <Shown query={query}>{(a) => <Table key={a.version} accounts={a} days={{ from, to }} />}</Shown>
      <SalesTax from={from} to={to} />
      <PeriodsBlock />
    </Page>
  );
}

function Table({ accounts: a, days }: { accounts: Accounts; days: { from: string; to: string } }) {
  const me = useMe();
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  // By account, since another account may come to stand in the list while somebody types.
  const [typed, setTyped] = useState<Readonly<Record<string, Partial<Named>>>>({});
  const own = a.accounts.map(({ account, number, name }) => ({ account, number, name, ...typed[account] }));
  const keep = useAct({
    act: (_: void, once) => ask(api.PUT('/api/journal/accounts', { headers: { ...once, ...ifMatch(a.version) }, body: { accounts: own } })),
  });
  const put = (account: string, next: Partial<Named>) => setTyped((was) => ({ ...was, [account]: { ...was[account], ...next } }));
  const agrees = a.stockWorth === a.stockAccount;
  return (
    <>
      <Sentence>
        {agrees
          ? `Stock is worth ${money(a.stockWorth)}, and that is what stands on its account.`
          : `Stock is worth ${money(a.stockWorth)}, and ${money(a.stockAccount)} stand on its account. Have the ledger checked.`}
      </Sentence>
      <LinesTable className="mt-3">
        <thead>
          <tr>
            <th>Account</th>
            <th>Your number</th>
            <th>Your name for it</th>
            <th className="num">Debit</th>
            <th className="num">Credit</th>
            <th className="num">Stands at</th>
          </tr>
        </thead>
        <tbody>
          {a.accounts.map((x, i) => (
            <tr key={x.account}>
              <td>
                <Link
                  to={`/books/journal?${new URLSearchParams({ account: x.account, ...(days.from && { from: days.from }), ...(days.to && { to: days.to }) })}`}
                >
                  <b>{x.account}</b>
                </Link>
              </td>
              <td style={{ width: 130 }}>
                <Input
                  className="code"
                  aria-label={`Your number for ${x.account}`}
                  value={own[i]?.number ?? ''}
                  onChange={(e) => put(x.account, { number: e.target.value.trim() })}
                />
              </td>
              <td style={{ width: 230 }}>
                <Input
                  aria-label={`Your name for ${x.account}`}
                  value={own[i]?.name ?? ''}
                  onChange={(e) => put(x.account, { name: e.target.value })}
                />
              </td>
              <td className="num">{micro(x.debit) === 0n ? '' : money(x.debit)}</td>
              <td className="num">{micro(x.credit) === 0n ? '' : money(x.credit)}</td>
              <td className="num">
                <b>{money(x.balance)}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <ProblemNote problem={keep.error} />
      <div className="flex flex-wrap gap-4 items-center mt-5">
        <Button type="button" disabled={keep.isPending} onClick={() => keep.mutate()}>
          Keep your accounts
        </Button>
      </div>
    </>
  );
}

/** What sales of the days were taxed with, by rate: the figures of the tax return. */
function SalesTax({ from, to }: { from: string; to: string }) {
  const me = useMe();
  const query = useQuery({
    queryKey: key('sales-tax', from, to),
    queryFn: () => ask(api.GET('/api/sales-tax', { params: { query: { from, to } } })),
  });
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  const t = query.data;
  if (!t || t.rows.length === 0) return null;
  return (
    <section aria-label="Tax on sales" className="mt-6">
      <BlockHead>
        <h2>Tax on sales</h2>
        <span className="note">by the day of invoice and credit note</span>
      </BlockHead>
      <DenseTable>
        <thead>
          <tr>
            <th>Rate</th>
            <th className="num">Net</th>
            <th className="num">Tax</th>
          </tr>
        </thead>
        <tbody>
          {t.rows.map((r) => (
            <tr key={`${r.taxCode}/${r.percent}`}>
              <td>{r.taxCode ? `${r.taxCode}, ${r.percent} %` : 'no tax'}</td>
              <td className="num">{money(r.net)}</td>
              <td className="num">{money(r.tax)}</td>
            </tr>
          ))}
          <tr>
            <td>
              <b>All</b>
            </td>
            <td className="num">
              <b>{money(t.net)}</b>
            </td>
            <td className="num">
              <b>{money(t.tax)}</b>
            </td>
          </tr>
        </tbody>
      </DenseTable>
    </section>
  );
}
