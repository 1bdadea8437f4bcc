import { useQuery } from '@tanstack/react-query';
import { lotWords, spell } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useMe, useSite } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { useBook } from '../../flow/book';
import { Button, ButtonLink, TextButton } from '../../ui/button';
import { Input } from '../../ui/input';
import { age } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { ActsForm, Page } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { PictureOf } from '../../ui/picture-of';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { LinesTable, PictureCell } from '../../ui/table';
import { ShelvesWords } from './shelves-words';
import { itemPath } from '../item-path';

type Row = Dto['SpotCountDto'];

/** Bins that somebody has reported: to be counted by somebody else, then decided. */
export function ToCountPage() {
  const me = useMe();
  const { site } = useSite();
  const book = useBook(site?.id);
  const query = useQuery({
    queryKey: key('spot-counts', site?.id),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/spot-counts', { params: { path: { siteId: site?.id ?? 0 } } })),
    enabled: site !== undefined,
  });
  return (
    <Page aria-label="To count">
      <h1 className="sr">To count</h1>
      <ShelvesWords at="count">
        {me.data?.rights.includes('count') && (
          <ButtonLink to="/floor/count" next>
            Count on the phone <Glyph name="go" size={13} />
          </ButtonLink>
        )}
      </ShelvesWords>
      <Shown query={query}>
        {(rows) =>
          rows.length === 0 ? (
            <Empty title="No bin is in doubt">
              Where a picker finds too few, what is missing is held and the bin shows here: first to be counted by somebody else, then to be
              decided.
            </Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <th>Goods</th>
                  <th>Bin</th>
                  <th>Reported</th>
                  <th className="num">Held</th>
                  <th>Counted</th>
                  <th>To do</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <SpotRow key={r.id} row={r} item={book.data?.items[r.itemId]} rights={me.data?.rights ?? []} />
                ))}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
    </Page>
  );
}

function SpotRow({ row: r, item, rights }: { row: Row; item: ItemFacts | undefined; rights: readonly string[] }) {
  const units = (n: number) => spell(n, item?.packs ?? []);
  return (
    <tr>
      <PictureCell>
        <Picture name={item?.picture} size={30} />
      </PictureCell>
      <td>
        <Link to={itemPath(r.sku)}>
          <b>{r.item}</b>
        </Link>
        <span className="note">{lotWords(item, r.lot)}</span>
      </td>
      <td className="code">
        <Link to={`/shelves/places/${r.place}`}>{r.place}</Link>
      </td>
      <td>
        {r.why}
        <span className="note">
          {[r.raisedBy, r.document, `${age(r.raisedAt)} ago`].filter(Boolean).map((word, i) => (
            <span key={String(word)}>
              {i > 0 && ', '}
              {word}
            </span>
          ))}
        </span>
      </td>
      <td className="num">{r.held > 0 ? units(r.held) : ''}</td>
      <td>
        {r.counted === null ? (
          <span className="soft">not yet</span>
        ) : (
          <>
            {units(r.counted)}
            <span className="note">
              by {r.countedBy ?? 'somebody'}; the books had {units(r.booked ?? 0)}
              {r.picture && ', '}
              {r.picture && <PictureOf act={r.picture} />}
            </span>
          </>
        )}
      </td>
      <td>
        {r.state === 'counted'
          ? rights.includes('settle-counts') && <Decide row={r} units={units} />
          : rights.includes('count') && <ByHand row={r} item={item} />}
      </td>
    </tr>
  );
}

/** The books follow, or somebody counts again. */
function Decide({ row: r, units }: { row: Row; units: (n: number) => string }) {
  const difference = (r.counted ?? 0) - (r.booked ?? 0);
  const params = { path: { id: r.id } };
  const settle = useAct({
    act: (_: void, once) => ask(api.POST('/api/spot-counts/{id}/settle', { params, headers: { ...ifMatch(r.version), ...once } })),
  });
  const again = useAct({
    act: (_: void, once) => ask(api.POST('/api/spot-counts/{id}/again', { params, headers: { ...ifMatch(r.version), ...once } })),
  });
  const isBusy = settle.isPending || again.isPending;
  return (
    <>
      <Button type="button" disabled={isBusy} onClick={() => settle.mutate()}>
        {difference === 0 ? 'Free what is held' : `Book ${units(Math.abs(difference))} ${difference < 0 ? 'less' : 'more'}`}
      </Button>{' '}
      <TextButton type="button" disabled={isBusy} onClick={() => again.mutate()}>
        Count again
      </TextButton>
      <ProblemNote problem={settle.error ?? again.error} />
    </>
  );
}

/** A number from paper or by word of mouth. */
function ByHand({ row: r, item }: { row: Row; item: ItemFacts | undefined }) {
  const [isOpen, setOpen] = useState(false);
  const [text, setText] = useState('');
  const base = item?.packs.find((p) => p.factor === 1)?.plural ?? 'units';
  const count = useAct({
    act: (units: number, once) =>
      ask(
        api.POST('/api/spot-counts/{id}/count', {
          params: { path: { id: r.id } },
          headers: { ...ifMatch(r.version), ...once },
          body: { units },
        }),
      ),
  });
  const isNumber = /^\d{1,8}$/.test(text.trim());
  if (!isOpen)
    return (
      <TextButton type="button" onClick={() => setOpen(true)}>
        Enter a count
      </TextButton>
    );
  return (
    <ActsForm
      onSubmit={(e) => {
        e.preventDefault();
        if (isNumber) count.mutate(Number(text));
      }}
    >
      <Input
        autoFocus
        className="num w-[90px]"
        inputMode="numeric"
        aria-label={`${base} of ${r.item} in ${r.place}`}
        placeholder={base}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Button type="submit" disabled={!isNumber || count.isPending}>
        Counted
      </Button>
      <ProblemNote problem={count.error} />
    </ActsForm>
  );
}
