import { spell } from '@vectrum/core/quantity';
import { comeBack, goodsBack, stillOut, type How } from '@vectrum/core/scan';
import { useCallback, useState } from 'react';
import { Link, useParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { Ask, PhoneBody, PhoneHead, PhoneList } from '../../ui/phone/parts';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { GoodsBack } from './goods-back';
import { ReturnPicture } from './return-picture';

/** Takes back what a customer sends: scan the goods, say how they are, and what becomes of them. */
export function ComeBackPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate kind="come-back" taskKey={code} back={<Link to="/floor/returns">‹ Returns</Link>}>
      {(ready) => <ComeBack ready={ready} />}
    </TaskGate>
  );
}

function ComeBack({ ready }: { ready: Ready<'come-back'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: comeBack, task, ready });
  const { state, input, scan } = flow;
  const [counting, setCounting] = useState(false);
  usePageScan(
    useCallback(
      (code: string, how: How) => {
        setCounting(false);
        scan(code, how);
      },
      [scan],
    ),
  );
  const goods = goodsBack(task, state.hand);
  const item = state.hand && book.items[state.hand.itemId];
  const out = task.goods.filter((g) => stillOut(g, state) > 0);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/returns">‹ Returns</Link>
        <span>{task.customer}</span>
        <span className="code">{task.code}</span>
      </PhoneHead>
      {goods && item && state.hand ? (
        <GoodsBack
          task={task}
          goods={goods}
          item={item}
          hand={state.hand}
          left={stillOut(goods, state)}
          input={input}
          counting={counting}
          onCounting={setCounting}
        />
      ) : (
        <>
          <Ask>{task.over ? 'It is settled' : out.length > 0 ? 'Scan what came back' : 'All of it is back'}</Ask>
          <PhoneBody className="mt-3">
            <PhoneList aria-label="What left with the order">
              {task.goods.map((g) => {
                const facts = book.items[g.itemId];
                const left = stillOut(g, state);
                if (!facts) return null;
                return (
                  <li key={`${g.orderLineId}/${g.itemId}`}>
                    <button
                      type="button"
                      disabled={left <= 0 || task.over}
                      onClick={() => input({ kind: 'code', code: facts.sku, how: 'typed' })}
                    >
                      <b>{facts.name}</b>
                      <span className="code">{facts.sku}</span>
                      <span>
                        {lineWords(
                          g.announced > 0 ? spell(g.announced, facts.packs) : '',
                          left > 0 ? spell(left, facts.packs) : '',
                          task.order !== null,
                        )}
                      </span>
                    </button>
                  </li>
                );
              })}
            </PhoneList>
          </PhoneBody>
          <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />
          <FloorKeys siteId={task.siteId} document={task.code}>
            <ReturnPicture code={task.code} />
          </FloorKeys>
        </>
      )}
    </>
  );
}

function lineWords(announced: string, left: string, isKnown: boolean): string {
  if (!isKnown) return 'Nobody knows the order';
  if (left === '') return 'All of it is back';
  return announced === '' ? `Not announced, ${left} with the customer` : `${announced} announced, ${left} with the customer`;
}
