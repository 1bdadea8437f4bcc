import { useQuery } from '@tanstack/react-query';
import { inPacks, packName, spell } from '@vectrum/core/quantity';
import {
  currentStop,
  currentTote,
  pick,
  startPick,
  wantedAt,
  type Codebook,
  type PickCommand,
  type PickStop,
  type PickTask,
  type SetDownCommand,
  type ShortCommand,
  type Bundle,
} from '@vectrum/core/scan';
import { useCallback } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, ask } from '../api/client';
import { useCodebook } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { useFlow } from '../flow/use-flow';
import { plural, when } from '../ui/format';
import { Glyph, progressGlyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { ProblemNote, Shown } from '../ui/states';
import { BinLabel } from './bin-label';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';

/** Rounds that wait, oldest promise first; one's own on top. */
export function PickList() {
  const navigate = useNavigate();
  const rounds = useQuery({ queryKey: ['rounds'], queryFn: () => ask(api.GET('/api/rounds')) });
  usePageScan(useCallback((code) => void navigate(`/floor/pick/${code.trim().toUpperCase()}`), [navigate]));
  return (
    <>
      <header className="f-head">
        <Link to="/floor">‹ Tasks</Link>
      </header>
      <h1 className="f-ask ask">Which round?</h1>
      <div className="f-body mt-3">
        <Shown query={rounds}>
          {(all) => {
            const list = all.filter((r) => r.state !== 'set-down').sort((a, b) => Number(b.mine) - Number(a.mine));
            return (
              <ul className="f-list">
                {list.map((r, i) => (
                  <li key={r.code} className={i === 0 ? 'next' : ''}>
                    <Link to={`/floor/pick/${r.code}`}>
                      <b>{r.customer}</b>
                      <Glyph name={progressGlyph(r.stopsDone, r.stops)} size={24} says />
                      <span>
                        <span className="code">{r.code}</span>, {plural(r.stops - r.stopsDone, 'stop', 'stops')}, {r.metres} m, by{' '}
                        {when(r.promisedAt)}
                        {r.picker && !r.mine ? `, ${r.picker.split(' ')[0]} is on it` : ''}
                      </span>
                    </Link>
                  </li>
                ))}
                {list.length === 0 && <li className="ask text-[18px]">No round waits. The office sends orders to picking.</li>}
              </ul>
            );
          }}
        </Shown>
      </div>
      <FloorKeys siteId={undefined} />
    </>
  );
}

type Task = PickTask & Bundle & { state: string };
type Command = PickCommand | ShortCommand | SetDownCommand;

function post(c: Command): Promise<unknown> {
  const params = { path: { code: c.round } };
  const headers = { 'idempotency-key': c.id };
  switch (c.kind) {
    case 'pick':
      return ask(
        api.POST('/api/floor/rounds/{code}/picks', {
          params,
          headers,
          body: { stopId: c.stopId, units: c.units, totePlaceId: c.totePlaceId, how: c.how },
        }),
      );
    case 'short':
      return ask(
        api.POST('/api/floor/rounds/{code}/shorts', {
          params,
          headers,
          body: { stopId: c.stopId, units: c.units },
        }),
      );
    case 'set-down':
      return ask(api.POST('/api/floor/rounds/{code}/set-down', { params, headers, body: { placeId: c.placeId } }));
  }
}

/** Loads a round and the site's codes, then runs the flow. */
export function PickPage() {
  const { code = '' } = useParams();
  const task = useQuery({
    queryKey: ['round', code],
    queryFn: () => ask(api.GET('/api/floor/rounds/{code}', { params: { path: { code } } })) as Promise<Task>,
  });
  const book = useCodebook(task.data?.siteId);
  if (task.data && book.data) return <Pick key={code} task={task.data} book={book.data} refetch={task.refetch} />;
  return (
    <div className="p-4">
      <header className="f-head">
        <Link to="/floor/pick">‹ Rounds</Link>
      </header>
      <ProblemNote problem={task.error ?? book.error} onRetry={() => void task.refetch()} />
    </div>
  );
}

function ask1(stop: PickStop | undefined, toteId: number | null, atBin: boolean, inHand: number, setDown: boolean): string {
  if (setDown) return 'Set down. Ready to pack';
  if (!stop) return 'Set the tote down';
  if (toteId === null) return 'Scan an empty tote';
  if (inHand > 0) return 'Scan the next, or the tote';
  return atBin ? 'Scan the goods' : 'Scan the bin';
}

function Pick({ task, book, refetch }: { task: Task; book: Codebook; refetch: () => Promise<{ data?: Task }> }) {
  const flow = useFlow<Task, typeof startPick, Command>({
    task,
    book,
    start: startPick,
    reduce: pick,
    send: post,
    refetch,
    siteId: task.siteId,
    document: task.order,
  });
  const { state, input } = flow;
  usePageScan(flow.scan);
  const stop = currentStop(task, state);
  const toteId = currentTote(task, state);
  const tote = Object.values(book.places).find((p) => p.id === toteId);
  const setDown = task.state === 'set-down' || task.state === 'done';
  const done = task.stops.filter((s) => wantedAt(state, s) <= 0).length;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <header className="f-head">
        <Link to="/floor/pick" className="code">
          ‹ {task.round}
        </Link>
        <progress className="walk" value={done} max={Math.max(1, task.stops.length)} aria-label="Stops done" />
        <span>
          {Math.min(done + 1, task.stops.length)} of {task.stops.length}
        </span>
      </header>
      <h1 className="f-ask ask pb-3">{ask1(stop, toteId, state.atBin, state.units, setDown)}</h1>
      {stop ? (
        <StopView
          task={task}
          book={book}
          stop={stop}
          wanted={wantedAt(state, stop)}
          inHand={state.units}
          atBin={state.atBin}
          tote={tote?.code ?? null}
        />
      ) : setDown ? (
        <Link to="/floor/pick" className="f-key next mx-[14px]">
          Next round
        </Link>
      ) : (
        <BinLabel
          code={Object.values(book.places).find((p) => p.kind === 'packing-table' && p.siteId === task.siteId)?.code ?? 'TABLE'}
          way="scan the label of the packing table"
        />
      )}
      <div style={{ marginTop: 'auto' }} />
      <FloorTape entries={flow.newest} onUndo={flow.undo} waiting={flow.offline ? flow.waiting : 0} lines={1} />
      <FloorKeys siteId={task.siteId} document={task.round}>
        {state.units > 0 && stop && state.units < wantedAt(state, stop) ? (
          <button type="button" className="f-key" onClick={() => input({ kind: 'confirm' })}>
            Into tote
          </button>
        ) : (
          <button type="button" className="f-key" disabled={!stop || state.units > 0} onClick={() => input({ kind: 'not-here' })}>
            Not here
          </button>
        )}
      </FloorKeys>
    </>
  );
}

function StopView({
  task,
  book,
  stop,
  wanted,
  inHand,
  atBin,
  tote,
}: {
  task: Task;
  book: Codebook;
  stop: PickStop;
  wanted: number;
  inHand: number;
  atBin: boolean;
  tote: string | null;
}) {
  const item = book.items[stop.itemId];
  const counts = item ? inPacks(wanted, item.packs) : [];
  const first = counts[0];
  return (
    <>
      {atBin || inHand > 0 ? (
        <div className="route" style={{ marginTop: 0 }}>
          <span className="node">
            <i />
            <span className="g g-full" aria-hidden />
          </span>
          <div className="donebin">
            <span className="code">{stop.placeCode}</span>
            <span style={{ fontWeight: 460, fontSize: 18, color: 'var(--color-ink-2)' }}>{atBin ? 'right bin' : 'goods first'}</span>
          </div>
        </div>
      ) : (
        <BinLabel
          code={stop.placeCode}
          way={tote === null ? 'take an empty tote with you' : stop.metres > 0 ? `${stop.metres} m on` : 'right here'}
        />
      )}
      <div className="route" style={atBin || inHand > 0 ? { marginTop: 0 } : undefined}>
        <span className="node">
          <i />
          <span className={`g ${inHand > 0 ? 'g-half' : 'g-empty'}`} aria-hidden />
        </span>
        <div className={`p-card ${atBin ? 'now' : ''}`}>
          <Picture name={item?.picture} size={96} />
          <div>
            <h2>{item?.name}</h2>
            <div className="qty">
              <b>{first?.count ?? wanted}</b>
              <span>{first ? packName(first.pack, first.count) : ''}</span>
            </div>
            <span className="each">
              {counts.length > 1 && item && `${spell(wanted, item.packs)} `}
              {stop.lot && `lot ${stop.lot} `}
              {inHand > 0 && item && `${spell(inHand, item.packs)} in hand`}
            </span>
          </div>
        </div>
        <span className="node last">
          <i />
          <span className={`g ${tote ? 'g-full' : 'g-empty'}`} aria-hidden />
        </span>
        <div className="drop">
          <p>
            {tote ? `Into tote ${tote}` : 'Into an empty tote'}
            <span>
              {task.order}, {task.customer}
            </span>
          </p>
        </div>
      </div>
    </>
  );
}
