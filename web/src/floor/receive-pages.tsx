import { useQuery } from '@tanstack/react-query';
import { spell } from '@vectrum/core/quantity';
import {
  countedUnits,
  receive,
  receivedOn,
  startReceive,
  type Codebook,
  type ReceiveCommand,
  type ReceiveTask,
  type Bundle,
} from '@vectrum/core/scan';
import { useCallback } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, ask } from '../api/client';
import { useCodebook } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { QuantityPad } from '../flow/quantity-pad';
import { useFlow } from '../flow/use-flow';
import { dayWord, plural, whole } from '../ui/format';
import { Glyph, progressGlyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { ProblemNote, Shown } from '../ui/states';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';

/** What is due, overdue first; scanning an order's paper opens it. */
export function ReceiveList() {
  const navigate = useNavigate();
  const due = useQuery({ queryKey: ['receive-due'], queryFn: () => ask(api.GET('/api/floor/receive')) });
  usePageScan(useCallback((code) => void navigate(`/floor/receive/${code.trim().toUpperCase()}`), [navigate]));
  return (
    <>
      <header className="f-head">
        <Link to="/floor">‹ Tasks</Link>
        <span />
        <span>{due.data ? plural(due.data.length, 'order', 'orders') : ''}</span>
      </header>
      <h1 className="f-ask ask">Scan the order’s paper</h1>
      <div className="f-body mt-3">
        <Shown query={due}>
          {(list) => (
            <ul className="f-list">
              {list.map((o) => (
                <li key={o.code}>
                  <Link to={`/floor/receive/${o.code}`}>
                    <b>{o.supplier}</b>
                    <Glyph name={progressGlyph(o.linesIn, o.lines)} size={24} says />
                    <span>
                      <span className="code">{o.code}</span>,{' '}
                      {o.state === 'part-received' ? `${o.linesIn} of ${o.lines} lines in` : dayWord(o.expectedOn)}
                    </span>
                  </Link>
                </li>
              ))}
              {list.length === 0 && <li className="ask text-[18px]">Nothing is due. Orders show here once they are placed.</li>}
            </ul>
          )}
        </Shown>
      </div>
      <FloorKeys siteId={undefined} />
    </>
  );
}

/** Loads the task of one order and the site's codes, then runs the flow. */
export function ReceivePage() {
  const { code = '' } = useParams();
  const task = useQuery({
    queryKey: ['receive', code],
    queryFn: () => ask(api.GET('/api/floor/receive/{code}', { params: { path: { code } } })) as Promise<ReceiveTask & Bundle>,
  });
  const book = useCodebook(task.data?.dock.siteId);
  if (task.data && book.data) return <Receive key={code} task={task.data} book={book.data} refetch={task.refetch} />;
  return (
    <div className="p-4">
      <header className="f-head">
        <Link to="/floor/receive">‹ Orders</Link>
      </header>
      <ProblemNote problem={task.error ?? book.error} onRetry={() => void task.refetch()} />
    </div>
  );
}

const post = (c: ReceiveCommand) =>
  ask(
    api.POST('/api/floor/receive/{code}', {
      params: { path: { code: c.order } },
      headers: { 'idempotency-key': c.id },
      body: {
        line: c.line,
        itemId: c.itemId,
        units: c.units,
        lot: c.lot,
        expires: c.expires,
        toPlaceId: c.toPlaceId,
        how: c.how,
      },
    }),
  );

function Receive({
  task,
  book,
  refetch,
}: {
  task: ReceiveTask & Bundle;
  book: Codebook;
  refetch: () => Promise<{ data?: ReceiveTask & Bundle }>;
}) {
  const flow = useFlow({
    task,
    book,
    start: startReceive,
    reduce: receive,
    send: post,
    refetch,
    siteId: task.dock.siteId,
    document: task.order,
  });
  const { state, input } = flow;
  usePageScan(flow.scan);
  const line = task.lines.find((l) => l.line === state.line);
  const item = line && book.items[line.itemId];
  const done = task.lines.filter((l) => receivedOn(task, state, l.line) >= l.ordered).length;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <header className="f-head">
        <Link to="/floor/receive" className="code">
          ‹ {task.order}
        </Link>
        <span style={{ fontWeight: 500, color: 'var(--color-ink-2)' }} className="overflow-hidden text-ellipsis whitespace-nowrap">
          {task.supplier}
        </span>
        <span>
          {done} of {task.lines.length}
        </span>
      </header>
      {line && item ? (
        <Counting flow={flow} task={task} line={line.line} item={item} ordered={line.ordered} />
      ) : (
        <>
          <h1 className="f-ask ask">{done === task.lines.length ? 'All lines are in' : 'Scan the goods'}</h1>
          <p className="px-[18px] pt-1 text-[17px] text-[color:var(--color-ink-2)]">
            To <b className="code">{(state.to ?? task.dock).code}</b>; scan another place to change it
          </p>
          <div className="f-body mt-3">
            <ul className="f-list">
              {task.lines.map((l) => {
                const facts = book.items[l.itemId];
                const come = receivedOn(task, state, l.line);
                return (
                  <li key={l.line}>
                    <button type="button" disabled={!facts} onClick={() => facts && input({ kind: 'code', code: facts.sku, how: 'typed' })}>
                      <b>{facts?.name ?? 'unknown item'}</b>
                      <Glyph name={progressGlyph(come, l.ordered)} size={24} says />
                      <span>
                        {come > 0 ? `${whole(come)} of ${whole(l.ordered)}, ` : ''}
                        {facts && l.ordered > come
                          ? `${spell(l.ordered - come, facts.packs)} to come`
                          : come > l.ordered
                            ? `${come - l.ordered} over`
                            : 'all here'}
                      </span>
                    </button>
                  </li>
                );
              })}
            </ul>
          </div>
          <FloorTape entries={flow.newest} onUndo={flow.undo} waiting={flow.offline ? flow.waiting : 0} />
          <FloorKeys siteId={task.dock.siteId} document={task.order} />
        </>
      )}
    </>
  );
}

type Flow = ReturnType<typeof useFlow<ReceiveTask & Bundle, typeof startReceive, ReceiveCommand>>;

function Counting({
  flow,
  task,
  line,
  item,
  ordered,
}: {
  flow: Flow;
  task: ReceiveTask & Bundle;
  line: number;
  item: Codebook['items'][string];
  ordered: number;
}) {
  const { state, input } = flow;
  const units = countedUnits(state, item);
  const rest = ordered - receivedOn(task, state, line);
  const over = units - rest;
  const active = state.activePackId ?? item.packs[0]?.id ?? 0;
  const to = (state.to ?? task.dock).code;
  const words = spell(units, item.packs);
  return (
    <>
      <div className="f-card">
        <Picture name={item.picture} size={68} />
        <div>
          <h2>{item.name}</h2>
          <span>{rest > 0 ? `${spell(rest, item.packs)} to come` : 'all of it is here'}</span>
        </div>
      </div>
      {item.tracking !== 'none' && (
        <div className="ans">
          <label>
            <span className="cap">Lot</span>
            <input
              value={state.lot ?? ''}
              placeholder="scan or type"
              maxLength={20}
              onChange={(e) => input({ kind: 'text', field: 'lot', value: e.target.value })}
              className="code"
            />
          </label>
          {item.tracking === 'lot-expiry' && (
            <label>
              <span className="cap">Best before</span>
              <input
                type="date"
                value={state.expires ?? ''}
                onChange={(e) => input({ kind: 'text', field: 'expires', value: e.target.value })}
              />
            </label>
          )}
        </div>
      )}
      <h1 className="f-ask ask">How many came?</h1>
      <div className="say" aria-live="polite">
        <b>{whole(units)}</b>
        <div>
          {units > 0 ? words : 'Count, or scan each pack'}
          {over > 0 && units > 0 && (
            <span className="over">
              <Glyph name="over" />
              {over} more than ordered
            </span>
          )}
        </div>
      </div>
      <QuantityPad
        item={item}
        counts={state.counts}
        active={active}
        fresh={!state.keyed}
        onCount={(packId, count) => input({ kind: 'count', packId, count })}
        onActive={(packId) => input({ kind: 'count', packId, count: state.counts[packId] ?? 0 })}
      />
      <div style={{ marginTop: 'auto' }} />
      <div className="f-keys" style={{ marginTop: 12, gridAutoColumns: 'auto', gridTemplateColumns: '104px 1fr' }}>
        <button type="button" className="f-key" onClick={() => input({ kind: 'clear' })}>
          Back
        </button>
        <button
          type="button"
          className="f-key next"
          style={{ minHeight: 72, fontSize: 22 }}
          disabled={units === 0}
          onClick={() => input({ kind: 'confirm' })}
        >
          {units === 0 ? 'Nothing counted yet' : `Book in ${words} to ${to}`}
        </button>
      </div>
    </>
  );
}
