import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { spell } from '@vectrum/core/quantity';
import { openLine, pack, startPack, toPack, type Codebook, type PackCommand, type PackTask, type Bundle } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { api, ask, ProblemError, type Dto } from '../api/client';
import { useLive } from '../api/live';
import { useCodebook, useMe } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { soundBand } from '../flow/sound';
import { useFlow } from '../flow/use-flow';
import { plural, untilWords, when } from '../ui/format';
import { Glyph, type GlyphName } from '../ui/glyph';
import { Mark } from '../ui/mark';
import { Picture } from '../ui/picture';
import { useScanner } from '../ui/scanner';
import { BenchQueue } from './bench-queue';
import { ParcelPanel, type ParcelChoice } from './parcel-panel';

/** The packing table. Nothing open: the queue; a scanned tote, docket or order opens its order. */
export function BenchPage() {
  const { code } = useParams();
  const navigate = useNavigate();
  const me = useMe();
  const up = useLive();
  const siteId = me.data?.sites[0]?.id;
  const book = useCodebook(siteId);
  const bench = useQuery({
    queryKey: ['bench', code],
    queryFn: () => ask(api.GET('/api/bench/orders/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  const task = useQuery({
    queryKey: ['bench-task', code],
    queryFn: () => ask(api.GET('/api/bench/orders/{code}/task', { params: { path: { code: code ?? '' } } })) as Promise<PackTask & Bundle>,
    enabled: code !== undefined,
  });
  const open = (scanned: string) => void navigate(`/bench/${encodeURIComponent(scanned.trim().toUpperCase())}`);
  const problem = code ? (bench.error ?? task.error) : null;
  const ready = code !== undefined && bench.data && task.data && book.data && siteId !== undefined;
  // A tote's code opens its order but does not stay its address: the tote is free again once the parcel is closed.
  if (bench.data && code !== bench.data.order) return <Navigate to={`/bench/${bench.data.order}`} replace />;
  return (
    <div className="bench" data-face="bench">
      <header className="btop">
        <Link to="/" className="mark-name">
          <Mark /> Vectrum
        </Link>
        <span className="ready">
          <Glyph name="scan" size={19} /> {up ? 'Scanner ready' : 'No network: scans are kept'}
        </span>
        <span className="r">
          {bench.data && (
            <span>
              promised <b>{when(bench.data.promisedAt)}</b>
              {untilWords(bench.data.promisedAt)}
            </span>
          )}
          <Link to="/bench" className="underline">
            All totes
          </Link>
          <b>{me.data?.name}</b>
        </span>
      </header>
      {ready ? (
        <Packing
          key={task.data.order}
          task={task.data}
          bench={bench.data}
          book={book.data}
          siteId={siteId}
          refetch={() => Promise.all([task.refetch(), bench.refetch()]).then(([fresh]) => fresh)}
          onOther={open}
        />
      ) : (
        <Waiting problem={problem} onOpen={open} />
      )}
    </div>
  );
}

function Waiting({ problem, onOpen }: { problem: Error | null; onOpen: (code: string) => void }) {
  useScanner(onOpen);
  return (
    <>
      <div>
        {problem instanceof ProblemError && <FeedbackBand feedback={{ band: 'unknown', title: 'Not here', detail: problem.message }} />}
      </div>
      <div className="btitle">
        <h1>Scan a tote or a docket</h1>
      </div>
      <div className="bcols">
        <BenchQueue onOpen={onOpen} />
      </div>
      <footer className="bfoot" />
    </>
  );
}

function post(c: PackCommand): Promise<unknown> {
  const params = { path: { code: c.order } };
  const headers = { 'idempotency-key': c.id };
  return c.kind === 'pack'
    ? ask(
        api.POST('/api/bench/orders/{code}/packs', {
          params,
          headers,
          body: { line: c.line, units: c.units, how: c.how },
        }),
      )
    : ask(api.POST('/api/bench/orders/{code}/note-seen', { params, headers }));
}

function useLabel(order: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ choice, weightSeen }: { choice: ParcelChoice; weightSeen: boolean }) =>
      ask(
        api.POST('/api/bench/orders/{code}/label', {
          params: { path: { code: order } },
          body: {
            carton: choice.carton,
            weightG: choice.weightG ?? 0,
            carrier: choice.rate?.carrier ?? '',
            service: choice.rate?.service ?? '',
            ...(weightSeen ? { weightSeen } : {}),
          },
        }),
      ),
    onError: () => soundBand('not-this'),
    onSettled: () => client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'codebook' }),
  });
}

function Packing({
  task,
  bench,
  book,
  siteId,
  refetch,
  onOther,
}: {
  task: PackTask & Bundle;
  bench: Dto['BenchDto'];
  book: Codebook;
  siteId: number;
  refetch: () => Promise<{ data?: PackTask & Bundle }>;
  onOther: (code: string) => void;
}) {
  const flow = useFlow<PackTask & Bundle, typeof startPack, PackCommand>({
    task,
    book,
    start: startPack,
    reduce: pack,
    send: post,
    refetch,
    siteId,
    document: task.order,
  });
  const label = useLabel(task.order);
  const [choice, setChoice] = useState<ParcelChoice>({
    carton: bench.cartons.find((c) => c.proposed)?.code ?? '',
    weightG: null,
    rate: null,
  });
  const { state, input } = flow;
  const all = task.lines.reduce((sum, l) => sum + l.picked, 0);
  const left = task.lines.reduce((sum, l) => sum + toPack(state, l), 0);
  const closed = bench.state !== 'picked';
  const noteSeen = task.noteSeen || state.noteSeen || !task.note;
  const isPaper = (code: string) => /^(S-\d+(-\d+)?|T-\d+)$/i.test(code.trim());
  useScanner((code) => (closed && isPaper(code) ? onOther(code) : flow.scan(code)));
  const current = openLine(task, state);
  const offWeight = label.error instanceof ProblemError && label.error.title === 'Weight is off';
  return (
    <>
      <div>
        <FeedbackBand
          feedback={
            label.error instanceof ProblemError
              ? {
                  band: (label.error.band as 'not-this' | null) ?? 'not-this',
                  title: label.error.title ?? 'No label yet',
                  detail: label.error.message,
                }
              : flow.feedback
          }
        />
      </div>
      <div className="btitle">
        <h1>{task.customer}</h1>
        <span className="note">
          <span className="code">{task.order}</span>, {bench.channel.toLowerCase()}
          {bench.tote && (
            <>
              , tote <span className="code">{bench.tote}</span>
            </>
          )}
          <br />
          {plural(task.lines.length, 'line', 'lines')}, {plural(all, 'piece', 'pieces')}
        </span>
        <span className="go">
          <b>{closed ? '' : left}</b>
          <span>{closed ? 'packed' : `to go of ${all}`}</span>
        </span>
      </div>
      <div className="bcols">
        <div className="bleft">
          {task.note && !noteSeen && (
            <div className="ack">
              <Glyph name="blocked" />
              <p>
                <span>Note from the customer</span>
                {task.note}
              </p>
              <button type="button" className="act" onClick={() => input({ kind: 'confirm' })}>
                Read, and done
              </button>
            </div>
          )}
          <ul className="bul">
            {task.lines.map((l) => {
              const item = book.items[l.itemId];
              const rest = toPack(state, l);
              const isNext = !closed && l.line === current?.line;
              return (
                <li key={l.line} className={isNext ? 'next' : rest === 0 ? 'in' : ''}>
                  <i>{l.line}</i>
                  <Picture name={item?.picture} size={50} />
                  <div>
                    <b>{item?.name}</b>
                    <span>{item && spell(l.picked, item.packs)}</span>
                  </div>
                  <span className="marks" role="img" aria-label={`${l.picked - rest} of ${l.picked} in`}>
                    {l.picked <= 8 ? (
                      Array.from({ length: l.picked }, (_, i) => <Glyph key={i} name={i < l.picked - rest ? 'full' : 'empty'} />)
                    ) : (
                      <Glyph name={rest === 0 ? 'full' : rest === l.picked ? 'empty' : 'half'} />
                    )}
                  </span>
                  <span className="to">
                    {rest === 0 ? (
                      'in the parcel'
                    ) : (
                      <>
                        <b>{rest}</b> to go
                      </>
                    )}
                  </span>
                </li>
              );
            })}
          </ul>
        </div>
        <div className="bright">
          {closed ? (
            <Closed bench={bench} />
          ) : (
            <ParcelPanel
              bench={bench}
              share={all === 0 ? 0 : (all - left) / all}
              allIn={left === 0}
              choice={choice}
              onChoice={(c) => {
                label.reset();
                setChoice(c);
              }}
            />
          )}
        </div>
      </div>
      <footer className="bfoot">
        <BenchTape entries={flow.newest} onUndo={flow.undo} />
        <div className="blabel">
          <div className="w">
            <b>{closed ? 'Done' : choice.rate ? `Label, ${choice.rate.carrierName}` : 'Label'}</b>
            <Lacks left={left} waiting={flow.waiting} noteSeen={noteSeen} choice={choice} closed={closed} />
          </div>
          {closed ? (
            <Link to="/bench" className="act act-next">
              Next tote <Glyph name="go" size={16} />
            </Link>
          ) : (
            <button
              type="button"
              className={`act ${left === 0 && choice.rate ? 'act-next' : ''}`}
              disabled={left > 0 || flow.waiting > 0 || !noteSeen || !choice.rate || label.isPending}
              onClick={() => label.mutate({ choice, weightSeen: offWeight })}
            >
              <Glyph name="print" /> {offWeight ? 'Looked: weight is right' : 'Print label'}
            </button>
          )}
        </div>
      </footer>
    </>
  );
}

function Lacks({
  left,
  waiting,
  noteSeen,
  choice,
  closed,
}: {
  left: number;
  waiting: number;
  noteSeen: boolean;
  choice: ParcelChoice;
  closed: boolean;
}) {
  if (closed) return <span>scan the next tote or docket</span>;
  const lacks = [
    left > 0 && `${plural(left, 'piece', 'pieces')} to scan`,
    left === 0 && waiting > 0 && `${plural(waiting, 'scan', 'scans')} on the way to the server`,
    !noteSeen && 'note to answer',
    left === 0 && choice.weightG === null && 'weight',
    left === 0 && choice.weightG !== null && !choice.rate && 'service to choose',
  ].filter((l) => l !== false);
  return (
    <span>
      {lacks.slice(0, 2).map((l) => (
        <span key={l} className="block">
          <Glyph name="empty" size={13} /> {l}
        </span>
      ))}
    </span>
  );
}

function Closed({ bench }: { bench: Dto['BenchDto'] }) {
  const words: Record<string, string> = {
    'label-asked': 'The label is on its way. It prints by itself; go on with the next tote.',
    labelled: 'Label printed. Put the parcel into its lane.',
    gone: 'Handed over.',
  };
  return (
    <div className="py-2">
      <h2 style={{ fontSize: 24, lineHeight: '30px' }}>Parcel {bench.parcel}</h2>
      <p className="text-[18px] leading-[26px] mt-2">{words[bench.parcelState] ?? 'This order is not at the packing table.'}</p>
      {bench.tracking && (
        <p className="text-[18px] mt-2">
          {bench.carrier}, <span className="code">{bench.tracking}</span>{' '}
          <a className="act-link" href={`/api/dispatch/parcels/${bench.parcel}/label`} target="_blank" rel="noreferrer" data-print>
            See the label
          </a>
        </p>
      )}
    </div>
  );
}

function BenchTape({ entries, onUndo }: { entries: Dto['TapeEntryDto'][]; onUndo: () => void }) {
  const newest = entries.find((e) => e.undoable);
  return (
    <div className="btape">
      <div className="strip" aria-label="Tape">
        {entries.slice(0, 3).map((e) => (
          <div className="e" key={e.id}>
            <Glyph name={e.glyph as GlyphName} />
            <span>
              <b>{e.title}</b>
            </span>
            <span className="soft" style={{ gridColumn: 2 }}>
              {e.detail}
            </span>
            {e === newest && (
              <button type="button" onClick={onUndo}>
                Undo
              </button>
            )}
          </div>
        ))}
      </div>
    </div>
  );
}
