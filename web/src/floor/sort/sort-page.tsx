import { spell } from '@vectrum/core/quantity';
import { progressOf, sort, type SortState, type SortTask, toSort } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { QuantityPad } from '../../flow/quantity-pad';
import { SpareList } from '../../flow/spare-goods';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Ask, Key, KeyLink, PhoneHead, Say } from '../../ui/phone/parts';
import { FloorTape } from '../floor-tape';
import { GoodsTaken } from '../goods-card';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { LotsAsked, MissingGoods } from './choices';
import { Wall } from './wall';

/** Sorts what a pooled round has brought: scan the goods, be shown the slot, scan the slot. */
export function SortPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate key={code} kind="sort" taskKey={code} back={<Link to="/floor/sort">‹ Rounds to sort</Link>}>
      {(ready) => <Sort ready={ready} />}
    </TaskGate>
  );
}

/** What the screen asks for, in a few words. */
function asked(task: SortTask, state: SortState, left: number): string {
  if (state.asksLotOf) return 'Scan the lot on it, or choose it';
  if (!state.hand) return left === 0 ? 'All of it is sorted' : 'Scan the goods';
  const slot = task.slots.find((s) => s.placeId === state.hand?.slotId);
  return `Into slot ${slot?.number ?? ''}: scan it`;
}

function Sort({ ready }: { ready: Ready<'sort'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: sort, task, ready, document: task.round, documents: [task.round, ...task.orders.map((o) => o.code)] });
  const { state, input } = flow;
  const [missing, setMissing] = useState(false);
  usePageScan(flow.scan);
  const left = toSort(task, state);
  const pieces = left.reduce((n, g) => n + g.units, 0);
  const { hand } = state;
  const item = hand && book.items[hand.itemId];
  const order = hand && task.orders.find((o) => o.id === hand.orderId);
  const wanted = left.find((g) => g.orderId === hand?.orderId && g.itemId === hand.itemId && g.lotId === hand.lotId)?.units ?? 0;
  const pack = item?.packs.find((p) => p.id === hand?.packId);
  const mayKey = hand !== null && pack !== undefined && (hand.units < wanted || hand.keyed) && wanted > 1;
  const complete = task.orders.filter((o) => {
    const { sorted, left: more } = progressOf(task, state, o);
    return sorted > 0 && more === 0;
  }).length;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/sort" className="code">
          ‹ {task.round}
        </Link>
        <span className="code">{task.wall.code}</span>
        <span>{plural(pieces, 'piece', 'pieces')} to go</span>
      </PhoneHead>
      <SpareList spare={task.spare} book={book} />
      {!mayKey && <Ask>{asked(task, state, pieces)}</Ask>}
      <div className="wall-face">
        <Wall task={task} state={state} slim={mayKey} />
        <div>
          {hand && item && (
            <GoodsTaken
              item={item}
              units={hand.units}
              isHeld
              slim
              of={`of ${spell(wanted, item.packs)} for ${order?.code ?? ''}, ${order?.customer ?? ''}`}
            />
          )}
          {mayKey && item && (
            <QuantityPad
              item={item}
              counts={{ [pack.id]: (hand.units - hand.before) / pack.factor }}
              active={pack.id}
              fresh={!hand.keyed}
              onCount={(packId, count) => input({ kind: 'count', packId, count })}
              onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
            />
          )}
          {state.asksLotOf && (
            <LotsAsked
              lots={[...new Set(left.flatMap((g) => (g.itemId === state.asksLotOf?.itemId && g.lot !== null ? [g.lot] : [])))]}
              onLot={(lot) => input({ kind: 'lot', lot })}
            />
          )}
          {missing && !hand && (
            <MissingGoods
              task={task}
              left={left}
              book={book}
              onMissing={({ orderId, itemId, lotId }) => {
                setMissing(false);
                input({ kind: 'missing', orderId, itemId, lotId });
              }}
            />
          )}
          {!hand && !state.asksLotOf && !missing && (
            <Say className="text-[18px]">
              {pieces > 0
                ? `${plural(complete, 'order is', 'orders are')} complete of ${task.orders.length}. A complete slot is ink: it can be packed.`
                : `${plural(task.orders.length, 'order waits', 'orders wait')} at the packing table, each under the code of its slot.`}
            </Say>
          )}
        </div>
      </div>
      <div style={{ marginTop: 'auto' }} />
      {!mayKey && !missing && (
        <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} lines={1} />
      )}
      <FloorKeys siteId={task.siteId} document={task.round}>
        {hand || state.asksLotOf ? (
          <Key type="button" onClick={() => input({ kind: 'clear' })}>
            Let go
          </Key>
        ) : pieces > 0 ? (
          <Key type="button" aria-pressed={missing} onClick={() => setMissing((m) => !m)}>
            {missing ? 'Back' : 'Missing'}
          </Key>
        ) : (
          <KeyLink to="/floor/sort" next>
            Next round
          </KeyLink>
        )}
      </FloorKeys>
    </>
  );
}
