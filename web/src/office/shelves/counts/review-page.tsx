import { useState } from 'react';
import { micro, moneyText } from '@vectrum/core/money';
import { Link, useParams } from 'react-router';
import { useQuery } from '@tanstack/react-query';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { useAsked } from '../../../ui/asked';
import { Button, TextButton } from '../../../ui/button';
import { Words } from '../../../ui/field';
import { plural } from '../../../ui/format';
import { Input } from '../../../ui/input';
import { MoreRows, useLongList } from '../../../ui/long-list';
import { FilterLine, Page, Sentence } from '../../../ui/page';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { useBook } from '../../../flow/book';
import { ChooseCell, LinesTable } from '../../../ui/table';
import { ShelvesWords } from '../shelves-words';
import { countState } from './count-words';
import { ReviewLine } from './review-line';

const SHOWS = [
  { value: 'off', says: 'What is off' },
  { value: 'beyond', says: 'Beyond tolerance' },
  { value: 'undecided', says: 'To decide' },
  { value: 'all', says: 'All lines' },
] as const;
type Shows = (typeof SHOWS)[number]['value'];

/** What a count has found, line by line: the books follow, somebody counts again, or nothing comes of it. */
export function ReviewPage() {
  const { code = '' } = useParams();
  const { asked, put } = useAsked();
  const shows = SHOWS.find((s) => s.value === asked('shows'))?.value ?? 'off';
  const count = useQuery({
    queryKey: key('count', code),
    queryFn: () => ask(api.GET('/api/counts/{code}', { params: { path: { code } } })),
  });
  const query = useLongList(key('count-review', code, shows), (page) =>
    ask(api.GET('/api/counts/{code}/review', { params: { path: { code }, query: { ...page, shows } } })),
  );
  const sums = useQuery({
    queryKey: key('count-review', code, 'sums'),
    queryFn: () => ask(api.GET('/api/counts/{code}/review', { params: { path: { code }, query: { shows: 'off', limit: '1' } } })),
  });
  return (
    <Page aria-label="What was found">
      <ShelvesWords at="counts" />
      {!count.data && <h1 className="sr">What was found</h1>}
      <Shown query={count}>
        {(c) => (
          <>
            <div className="flex flex-wrap items-baseline gap-x-4 mt-1">
              <h1>{c.title}</h1>
              <Link className="code" to={`/shelves/counts/${c.code}`}>
                {c.code}
              </Link>
              <span className="mid">{countState(c.state)}</span>
            </div>
            {sums.data && <Sums review={sums.data} />}
            <FilterLine>
              <Words<Shows> label="Which lines" value={shows} words={[...SHOWS]} onChange={(v) => put('shows', v, 'off')} />
            </FilterLine>
            <Shown query={query}>
              {({ rows }) =>
                rows.length === 0 ? (
                  <Empty title={shows === 'off' ? 'Everything is as the books say' : 'No line is like that'}>
                    {c.state === 'open' ? 'What is counted shows here as phones send it.' : 'The other words above show the other lines.'}
                  </Empty>
                ) : (
                  <Lines count={c} rows={rows} />
                )
              }
            </Shown>
            <MoreRows list={query} what={['line', 'lines']} />
          </>
        )}
      </Shown>
    </Page>
  );
}

function Sums({ review: r }: { review: Dto['ReviewDto'] }) {
  const currency = useMe().data?.homeCurrency;
  const money = (text: string) => moneyText(micro(text.replace('-', '')), currency);
  return (
    <Sentence className="mt-2">
      {r.off === 0 ? 'Nothing is off' : `${plural(r.off, 'line is', 'lines are')} off, ${r.beyond} beyond tolerance`}
      {r.more !== null && r.less !== null && r.off > 0 && `: ${money(r.more)} more, ${money(r.less)} less than the books have`}
      {r.accuracy !== null && `. ${r.accuracy} % of ${plural(r.lines, 'line', 'lines')} within tolerance`}
    </Sentence>
  );
}

function Lines({ count: c, rows }: { count: Dto['CountDto']; rows: Dto['CountLineDto'][] }) {
  const me = useMe();
  const book = useBook(c.siteId);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [reason, setReason] = useState<string | null>(null);
  const params = { path: { code: c.code } };
  const headers = (once: object) => ({ ...once, ...ifMatch(c.version) }) as { 'if-match': string; 'idempotency-key': string };
  const after = { onDone: () => setChosen(new Set()) };
  const accept = useAct({
    act: (lineIds: number[], once) => ask(api.POST('/api/counts/{code}/accept', { params, body: { lineIds }, headers: headers(once) })),
    ...after,
  });
  const again = useAct({
    act: (lineIds: number[], once) => ask(api.POST('/api/counts/{code}/again', { params, body: { lineIds }, headers: headers(once) })),
    ...after,
  });
  const discard = useAct({
    act: (lineIds: number[], once) =>
      ask(api.POST('/api/counts/{code}/discard', { params, body: { lineIds, reason: reason ?? '' }, headers: headers(once) })),
    onDone: () => {
      setChosen(new Set());
      setReason(null);
    },
  });
  const mayDecide = c.state === 'review' && (me.data?.rights.includes('settle-counts') ?? false);
  const open = rows.filter((r) => r.state === 'counted');
  const ids = open.filter((r) => chosen.has(r.id)).map((r) => r.id);
  const within = open.filter((r) => r.isWithin).length;
  const isBusy = accept.isPending || again.isPending || discard.isPending;
  return (
    <>
      {mayDecide && open.length > 0 && (
        <form
          className="flex flex-wrap gap-3 items-center mt-3"
          onSubmit={(e) => {
            e.preventDefault();
            discard.mutate(ids);
          }}
        >
          <Button type="button" next={ids.length > 0} disabled={ids.length === 0 || isBusy} onClick={() => accept.mutate(ids)}>
            {ids.length === 0 ? 'The books follow' : `The books follow ${plural(ids.length, 'line', 'lines')}`}
          </Button>
          <Button type="button" disabled={ids.length === 0 || isBusy} onClick={() => again.mutate(ids)}>
            Count again
          </Button>
          {reason === null ? (
            <TextButton type="button" disabled={ids.length === 0 || isBusy} onClick={() => setReason('')}>
              Let go
            </TextButton>
          ) : (
            <>
              <Input
                autoFocus
                aria-label="Why nothing comes of it"
                placeholder="why"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
              />
              <Button type="submit" disabled={!reason.trim() || ids.length === 0 || isBusy}>
                Let go
              </Button>
            </>
          )}
          {ids.length === 0 && within > 0 && (
            <Button type="button" disabled={isBusy} onClick={() => accept.mutate([])}>
              The books follow all within tolerance
            </Button>
          )}
        </form>
      )}
      <ProblemNote problem={accept.error ?? again.error ?? discard.error} />
      {accept.data && accept.data.failed.length > 0 && <p className="stamped mt-2">{[...new Set(accept.data.failed)].join('. ')}</p>}
      <LinesTable className="mt-2" aria-label="Lines of the count">
        <thead>
          <tr>
            {mayDecide && (
              <ChooseCell
                says="All lines that are to be decided"
                checked={open.length > 0 && ids.length === open.length}
                onChoose={(on) => setChosen(new Set(on ? open.map((r) => r.id) : []))}
              />
            )}
            <th>Bin</th>
            <th>Goods</th>
            <th className="num">Should be</th>
            <th className="num">Counted</th>
            <th className="num">Off</th>
            {me.data?.seesCosts && <th className="num">Worth</th>}
            <th>Why</th>
            <th>By</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <ReviewLine
              key={r.id}
              count={c}
              line={r}
              item={book.data?.items[r.itemId]}
              mayDecide={mayDecide}
              chosen={chosen.has(r.id)}
              onChoose={(on) => setChosen(on ? new Set([...chosen, r.id]) : new Set([...chosen].filter((id) => id !== r.id)))}
            />
          ))}
        </tbody>
      </LinesTable>
    </>
  );
}
