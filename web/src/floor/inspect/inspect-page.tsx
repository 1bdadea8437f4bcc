import { useQuery } from '@tanstack/react-query';
import { spell } from '@vectrum/core/quantity';
import {
  goodsInHand,
  inspect,
  inspectKey,
  startInspect,
  unjudged,
  type Bundle,
  type Codebook,
  type How,
  type InspectCommand,
  type InspectTask,
} from '@vectrum/core/scan';
import { useCallback, useState } from 'react';
import { Link } from 'react-router';
import { api, ask } from '../../api/client';
import { useCodebook, useMe } from '../../api/queries';
import { FeedbackBand } from '../../flow/band';
import { useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { ProblemNote } from '../../ui/states';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { GoodsInHand, type InspectPanel } from './goods-in-hand';

type Task = InspectTask & Bundle;

function send(c: InspectCommand): Promise<unknown> {
  const params = { path: { code: c.inspection } };
  const headers = { 'idempotency-key': c.id };
  if (c.kind === 'check') {
    const { no, value } = c;
    return ask(api.POST('/api/inspections/{code}/answers', { params, headers, body: { no, value } }));
  }
  const { lotId, placeId, units, verdict, reason, how } = c;
  return ask(api.POST('/api/inspections/{code}/verdicts', { params, headers, body: { lotId, placeId, units, verdict, reason, how } }));
}

/** Looks at goods before they are stock: scan them, answer the checks, pass or reject. */
export function InspectPage() {
  const me = useMe();
  const siteId = me.data?.sites[0]?.id;
  const book = useCodebook(siteId);
  const task = useQuery({
    queryKey: ['inspect', siteId],
    queryFn: () => ask(api.GET('/api/inspections/task', { params: { query: { site: String(siteId) } } })) as Promise<Task>,
    enabled: siteId !== undefined,
  });
  if (task.data && book.data) return <Inspect task={task.data} book={book.data} refetch={task.refetch} />;
  return <ProblemNote problem={task.error ?? book.error} onRetry={() => void task.refetch()} />;
}

function Inspect({ task, book, refetch }: { task: Task; book: Codebook; refetch: () => Promise<{ data?: Task }> }) {
  const flow = useFlow({ task, book, start: startInspect, reduce: inspect, send, refetch, siteId: task.siteId, document: undefined });
  const { state, input } = flow;
  const [open, setOpen] = useState<InspectPanel | null>(null);
  const { scan } = flow;
  usePageScan(
    useCallback(
      (code: string, how: How) => {
        setOpen(null);
        scan(code, how);
      },
      [scan],
    ),
  );
  const goods = goodsInHand(task, state);
  const item = goods && book.items[goods.itemId];
  const waiting = task.goods.filter((g) => unjudged(g, state) > 0);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <header className="f-head">
        <Link to="/floor">‹ Tasks</Link>
        <span />
        <span>{plural(waiting.length, 'lot waits', 'lots wait')}</span>
      </header>
      {goods && item ? (
        <GoodsInHand key={inspectKey(goods)} goods={goods} item={item} state={state} input={input} open={open} onOpen={setOpen} />
      ) : (
        <>
          <h1 className="f-ask ask">{waiting.length > 0 ? 'Scan what you look at' : 'Nothing waits to be looked at'}</h1>
          <div className="f-body mt-3">
            <ul className="f-list">
              {waiting.map((g) => {
                const facts = book.items[g.itemId];
                return (
                  <li key={inspectKey(g)}>
                    <button type="button" onClick={() => facts && input({ kind: 'code', code: facts.sku, how: 'typed' })}>
                      <b>{facts?.name}</b>
                      <span className="code">{g.place}</span>
                      <span>
                        {facts && spell(unjudged(g, state), facts.packs)} from {g.supplier}
                        {g.lot && `, lot ${g.lot}`}
                      </span>
                    </button>
                  </li>
                );
              })}
            </ul>
          </div>
          <FloorTape entries={flow.newest} onUndo={flow.undo} waiting={flow.offline ? flow.waiting : 0} />
          <FloorKeys siteId={task.siteId} />
        </>
      )}
    </>
  );
}
