import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { today } from '../../api/site-day';
import { useAct } from '../../api/use-act';
import { Days, useAsked } from '../../ui/asked';
import { Button, TextAnchor, TextLink } from '../../ui/button';
import { day, plural, when } from '../../ui/format';
import { Input, Select } from '../../ui/input';
import { MoreRows, useLongList } from '../../ui/long-list';
import { BlockHead, Page } from '../../ui/page';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { DenseTable, LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';
import { BooksWords } from './books-words';
import { documentPath } from './document-path';
import { TimetableLine } from './timetable-line';

/** One journal of all that the house posts: what went from which account to which, and on which document. */
export function JournalPage() {
  const me = useMe();
  const { asked, put } = useAsked();
  const [from, to, account] = ['from', 'to', 'account'].map(asked) as [string, string, string];
  const query = useLongList(key('journal', from, to, account), (window) =>
    ask(api.GET('/api/journal', { params: { query: { ...window, from, to, account } } })),
  );
  const accounts = useQuery({ queryKey: key('accounts', '', ''), queryFn: () => ask(api.GET('/api/journal/accounts')) });
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <Page aria-label="Journal">
      <h1 className="sr">Journal</h1>
      <BooksWords at="journal" />
      <ExportBlock money={money} />
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center my-3">
        <Days asked={asked} put={put} />
        <Select className="w-[200px]" aria-label="Account" value={account} onChange={(e) => put('account', e.target.value)}>
          <option value="">Every account</option>
          {(accounts.data?.accounts ?? []).map((a) => (
            <option key={a.account}>{a.account}</option>
          ))}
        </Select>
      </div>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="Nothing was posted in these days">
              Goods that come and go, bills, invoices and payments stand here once they are.
            </Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <th>Posted</th>
                  <th>Document</th>
                  <th>Debit</th>
                  <th>Credit</th>
                  <th>Goods</th>
                  <th className="num">Amount</th>
                  <th>Went out</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((e) => (
                  <EntryRow key={e.id} entry={e} money={money} />
                ))}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['entry', 'entries']} />
    </Page>
  );
}

function EntryRow({ entry: e, money }: { entry: Dto['JournalEntryDto']; money: (amount: string) => string }) {
  const to = e.document === null ? null : documentPath(e.document);
  return (
    <tr>
      <td className="mid">{when(e.at)}</td>
      <td className="code">{to ? <Link to={to}>{e.document}</Link> : e.document}</td>
      <td>{e.debit}</td>
      <td>{e.credit}</td>
      <td>{e.sku && <Link to={itemPath(e.sku)}>{e.item}</Link>}</td>
      <td className="num">{money(e.amount)}</td>
      <td className="code mid">{e.export}</td>
    </tr>
  );
}

/** What has not gone out into the company's own books, the key that sends it, and what went before. */
function ExportBlock({ money }: { money: (amount: string) => string }) {
  const [through, setThrough] = useState(today());
  const preview = useQuery({
    queryKey: key('journal-preview', through),
    queryFn: () => ask(api.GET('/api/journal/export-preview', { params: { query: { through } } })),
    placeholderData: (was) => was,
  });
  const exports = useQuery({
    queryKey: key('journal-exports'),
    queryFn: () => ask(api.GET('/api/journal/exports', { params: { query: { limit: '6' } } })),
  });
  const send = useAct({ act: (_: void, once) => ask(api.POST('/api/journal/exports', { body: { through }, headers: once })) });
  const p = preview.data;
  return (
    <section aria-label="Export">
      <BlockHead>
        <h2>Into your own books</h2>
        <span className="note">each entry goes out once</span>
      </BlockHead>
      <div className="flex flex-wrap gap-x-4 gap-y-2 items-center">
        <label className="flex gap-2 items-center">
          up to <Input type="date" className="w-[150px]" aria-label="Up to" value={through} onChange={(e) => setThrough(e.target.value)} />
        </label>
        <span>
          {p &&
            (p.entries === 0
              ? 'Nothing that did not go out before'
              : `${plural(p.entries, 'entry', 'entries')} over ${money(p.amount)}${p.from ? `, from ${day(p.from)}` : ''}`)}
        </span>
        <Button type="button" disabled={!p || p.entries === 0 || p.unnamed.length > 0 || send.isPending} onClick={() => send.mutate()}>
          Export them
        </Button>
        {p && p.unnamed.length > 0 && p.entries > 0 && (
          <span className="stamped">
            Say first which accounts of yours these are: {p.unnamed.join(', ')}. <TextLink to="/books/accounts">Name them</TextLink>
          </span>
        )}
      </div>
      <TimetableLine what="export" says="They go out" />
      <ProblemNote problem={send.error} />
      {(exports.data?.rows.length ?? 0) > 0 && (
        <DenseTable className="mt-3">
          <thead>
            <tr>
              <th>Export</th>
              <th>Up to</th>
              <th className="num">Entries</th>
              <th className="num">Amount</th>
              <th>By</th>
              <th>File</th>
            </tr>
          </thead>
          <tbody>
            {exports.data?.rows.map((x) => (
              <tr key={x.code}>
                <td className="code">{x.code}</td>
                <td>{day(x.throughOn)}</td>
                <td className="num">{x.entries}</td>
                <td className="num">{money(x.amount)}</td>
                <td>
                  {x.by}, {when(x.at)}
                </td>
                <td>
                  {(['csv', 'xlsx', 'json'] as const).map((kind) => (
                    <TextAnchor key={kind} className="mr-3" href={`/api/exports/lists/journal.${kind}?export=${x.code}`} download>
                      {kind.toUpperCase()}
                    </TextAnchor>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </DenseTable>
      )}
    </section>
  );
}
