import { useQuery } from '@tanstack/react-query';
import { packName } from '@vectrum/core/quantity';
import { useState } from 'react';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { age } from '../../ui/format';
import { Select } from '../../ui/input';
import { MoreRows, useLongList } from '../../ui/long-list';
import { Page } from '../../ui/page';
import { SearchField } from '../../ui/search-field';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';
import { ShelvesWords } from './shelves-words';

type Row = Dto['UnmatchedCodeDto'];

/** Codes that the floor scanned and nothing has: each is matched with goods once for all, or set aside. */
export function CodesPage() {
  const me = useMe();
  const query = useLongList(key('unmatched-codes'), (window) => ask(api.GET('/api/unmatched-codes', { params: { query: window } })));
  const isManySites = (me.data?.sites.length ?? 0) > 1;
  return (
    <Page aria-label="Codes to match">
      <h1 className="sr">Codes to match</h1>
      <ShelvesWords at="codes" />
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="Every code that was scanned is known">
              A barcode that is on nothing here waits in this list when somebody scans it, until it is matched with goods or set aside.
            </Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <th>Code</th>
                  <th className="num">Scanned</th>
                  <th>Last</th>
                  <th>It is on</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <CodeRow key={r.id} row={r} site={isManySites ? r.site : null} />
                ))}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['code', 'codes']} />
    </Page>
  );
}

function CodeRow({ row: r, site }: { row: Row; site: string | null }) {
  const [text, setText] = useState('');
  const [sku, setSku] = useState('');
  const [factor, setFactor] = useState('');
  const found = useQuery({
    queryKey: key('items-found', text),
    queryFn: () => ask(api.GET('/api/items', { params: { query: { search: text, limit: '8' } } })),
    enabled: text.trim().length > 1 && sku === '',
    placeholderData: (was) => was,
  });
  const item = useQuery({
    queryKey: key('item', sku),
    queryFn: () => ask(api.GET('/api/items/{sku}', { params: { path: { sku } } })),
    enabled: sku !== '',
  });
  const params = { path: { id: r.id } };
  const match = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/unmatched-codes/{id}/match', { params, headers: once, body: { sku, factor: Number(factor || '1') } })),
  });
  const aside = useAct({ act: (_: void, once) => ask(api.POST('/api/unmatched-codes/{id}/set-aside', { params, headers: once })) });
  const isBusy = match.isPending || aside.isPending;
  const packs = item.data?.packs ?? [];
  return (
    <tr>
      <td className="code">
        <b>{r.code}</b>
      </td>
      <td className="num">{r.times === 1 ? 'once' : `${r.times} times`}</td>
      <td>
        {age(r.lastAt)} ago
        <span className="note">{[r.lastBy, r.document, site].filter(Boolean).join(', ')}</span>
      </td>
      <td>
        <form
          className="flex gap-3 items-center flex-wrap"
          onSubmit={(e) => {
            e.preventDefault();
            if (sku !== '') match.mutate();
          }}
        >
          <span className="w-[260px]">
            <SearchField
              label={`Goods with ${r.code}`}
              value={text}
              placeholder="Words or SKU"
              found={sku === '' ? (found.data?.rows ?? []).map((i) => ({ value: i.sku, title: i.name })) : []}
              onType={(typed) => {
                setText(typed);
                setSku('');
                setFactor('');
              }}
              onTake={({ value, title }) => {
                setText(title);
                setSku(value);
              }}
            />
          </span>
          {packs.length > 0 && (
            <Select
              aria-label={`Pack with ${r.code}`}
              className="w-[150px]"
              value={factor || '1'}
              onChange={(e) => setFactor(e.target.value)}
            >
              {packs.map((p) => (
                <option key={p.factor} value={p.factor}>
                  {packName(p, 1)}
                </option>
              ))}
            </Select>
          )}
          <Button type="submit" disabled={sku === '' || isBusy}>
            Match
          </Button>
        </form>
        <ProblemNote problem={match.error ?? aside.error} />
      </td>
      <td className="num">
        <TextButton type="button" disabled={isBusy} onClick={() => aside.mutate()}>
          On nothing of ours
        </TextButton>
      </td>
    </tr>
  );
}
