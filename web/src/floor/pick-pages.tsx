import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { inPacks, packName, spell } from '@vectrum/core/quantity';
import { currentStop, currentTote, inHandAt, isAtBin, isSetDown, pick, wantedAt, type Codebook, type PickStop } from '@vectrum/core/scan';
import { useCallback } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, ask, at } from '../api/client';
import { useSite } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { kept } from '../flow/kept';
import { type Ready, TaskGate } from '../flow/task-gate';
import { useFlow } from '../flow/use-flow';
import { plural, when } from '../ui/format';
import { Glyph, progressGlyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { Shown } from '../ui/states';
import { BinLabel } from './bin-label';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';

/** Rounds that wait, oldest promise first; one's own on top. */
export function PickList() {
  const navigate = useNavigate();
  const { site } = useSite();
  const rounds = useQuery({
    queryKey: key('rounds', site?.id),
    queryFn: () => kept(`rounds-${site?.id ?? ''}`, () => ask(api.GET('/api/rounds', at(site)))),
    enabled: site !== undefined,
  });
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
                        {when(r.leavesAt ?? r.promisedAt)}
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

/** Loads a round and the site's codes, then runs the flow. */
export function PickPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate key={code} kind="pick" taskKey={code} back={<Link to="/floor/pick">‹ Rounds</Link>}>
      {(ready) => <Pick ready={ready} />}
    </TaskGate>
  );
}

function ask1(stop: PickStop | undefined, toteId: number | null, atBin: boolean, inHand: number, setDown: boolean): string {
  if (setDown) return 'Set down. Ready to pack';
  if (!stop) return 'Set the tote down';
  if (toteId === null) return 'Scan an empty tote';
  if (inHand > 0) return 'Scan the next, or the tote';
  return atBin ? 'Scan the goods' : 'Scan the bin';
}

function Pick({ ready }: { ready: Ready<'pick'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: pick, task, ready, document: task.order });
  const { state, input } = flow;
  usePageScan(flow.scan);
  const stop = currentStop(task, state);
  const toteId = currentTote(task, state);
  const tote = Object.values(book.places).find((p) => p.id === toteId);
  const setDown = isSetDown(task, state);
  const inHand = inHandAt(state, stop);
  const atBin = isAtBin(state, stop);
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
      <h1 className="f-ask ask pb-3">{ask1(stop, toteId, atBin, inHand, setDown)}</h1>
      {stop ? (
        <StopView
          task={task}
          book={book}
          stop={stop}
          wanted={wantedAt(state, stop)}
          inHand={inHand}
          atBin={atBin}
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
      <FloorTape entries={flow.newest} onUndo={flow.undo} unsent={flow.unsent} offline={flow.offline} lines={1} />
      <FloorKeys siteId={task.siteId} document={task.round}>
        {stop && inHand > 0 && inHand < wantedAt(state, stop) ? (
          <button type="button" className="f-key" onClick={() => input({ kind: 'confirm' })}>
            Into tote
          </button>
        ) : (
          <button
            type="button"
            className="f-key"
            disabled={!stop || inHand > 0}
            onClick={() => stop && input({ kind: 'not-here', stopId: stop.id })}
          >
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
  task: Ready<'pick'>['bundle']['task'];
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
