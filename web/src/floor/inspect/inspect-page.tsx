import { commaLot, spell } from '@vectrum/core/quantity';
import { goodsInHand, inspect, inspectKey, unjudged, type How } from '@vectrum/core/scan';
import { useCallback, useState } from 'react';
import { Link } from 'react-router';
import { useSite } from '../../api/queries';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { GoodsInHand, type InspectPanel } from './goods-in-hand';
import { PhoneHead, Ask, PhoneBody, PhoneList } from '../../ui/phone/parts';

/** Looks at goods before they are stock: scan them, answer the checks, pass or reject. */
export function InspectPage() {
  const { site } = useSite();
  return (
    <TaskGate kind="inspect" taskKey={site?.id} back={<Link to="/floor">‹ Tasks</Link>}>
      {(ready) => <Inspect ready={ready} />}
    </TaskGate>
  );
}

function Inspect({ ready }: { ready: Ready<'inspect'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: inspect, task, ready });
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
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span />
        <span>{plural(waiting.length, 'lot waits', 'lots wait')}</span>
      </PhoneHead>
      {goods && item ? (
        <GoodsInHand key={inspectKey(goods)} goods={goods} item={item} state={state} input={input} open={open} onOpen={setOpen} />
      ) : (
        <>
          <Ask>{waiting.length > 0 ? 'Scan what you look at' : 'Nothing waits to be looked at'}</Ask>
          <PhoneBody className="mt-3">
            <PhoneList>
              {waiting.map((g) => {
                const facts = book.items[g.itemId];
                return (
                  <li key={inspectKey(g)}>
                    <button type="button" onClick={() => facts && input({ kind: 'code', code: facts.sku, how: 'typed' })}>
                      <b>{facts?.name}</b>
                      <span className="code">{g.place}</span>
                      <span>
                        {facts && spell(unjudged(g, state), facts.packs)} from {g.supplier}
                        {commaLot(facts, g.lot)}
                      </span>
                    </button>
                  </li>
                );
              })}
            </PhoneList>
          </PhoneBody>
          <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />
          <FloorKeys siteId={task.siteId} />
        </>
      )}
    </>
  );
}
