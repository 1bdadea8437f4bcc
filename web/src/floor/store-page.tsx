import { commaLot, spell } from '@vectrum/core/quantity';
import { goodsHeld, goodsKey, standing, store, waitingGoods, whyThere } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSite } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { QuantityPad } from '../flow/quantity-pad';
import { type Ready, TaskGate } from '../flow/task-gate';
import { useFlow } from '../flow/use-flow';
import { Picture } from '../ui/picture';
import { BinLabel } from './bin-label';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';
import { SiteName } from './device-switches';
import { PhoneHead, Ask, TaskCard, PhoneBody, PhoneList, Key, Route, RouteNode, ToTake, OfEach } from '../ui/phone/parts';
import { Glyph } from '../ui/glyph';

/** Puts goods away: scan the thing, be told where, scan the bin. */
export function StorePage() {
  const { site } = useSite();
  return (
    <TaskGate kind="store" taskKey={site?.id} back={<Link to="/floor">‹ Tasks</Link>}>
      {(ready) => <Store ready={ready} />}
    </TaskGate>
  );
}

/** What is to be scanned while nothing is in hand; `from`: the place that it is kept to. */
function asked(onto: string | undefined, waiting: number, from: string | undefined): string {
  if (waiting === 0) return from ? `Nothing more at ${from}` : 'Nothing waits to be put away';
  return onto ? `Scan goods onto ${onto}` : 'Scan the goods';
}

function Store({ ready }: { ready: Ready<'store'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: store, task, ready });
  const { state, input } = flow;
  const [counting, setCounting] = useState(false);
  usePageScan(flow.scan);
  const goods = goodsHeld(task, state);
  const item = goods && book.items[goods.itemId];
  const left = goods ? standing(task, state, goodsKey(goods)) : 0;
  const units = state.hand?.units ?? left;
  const waiting = waitingGoods(task, state);
  const from = task.goods.find((g) => g.fromPlaceId === state.from)?.fromCode;
  const pack = item?.packs.find((p) => units % p.factor === 0) ?? item?.packs.at(-1);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
        <span>
          {waiting.length} left{from && ` at ${from}`}
        </span>
      </PhoneHead>
      <Ask>{goods ? 'Scan the bin' : asked(state.onto?.code, waiting.length, from)}</Ask>
      {goods && item ? (
        <>
          <div className="mt-3">
            {goods.suggestion ? (
              <BinLabel code={goods.suggestion.code} way={whyThere(goods, left, item)} />
            ) : (
              <p className="px-[18px] text-[20px]">No bin is free. Scan any bin that has room.</p>
            )}
            {goods.then.length > 0 && (
              <p className="px-[18px] mt-1 text-[17px]">
                The rest to{' '}
                {goods.then.map((t) => (
                  <span key={t.code}>
                    <b className="code">{t.code}</b> ({spell(t.units, item.packs)}){' '}
                  </span>
                ))}
              </p>
            )}
          </div>
          <Route>
            <RouteNode last>
              <i />
              <Glyph name="empty" />
            </RouteNode>
            <TaskCard>
              <Picture name={item.picture} size={96} />
              <div>
                <h2>{item.name}</h2>
                <ToTake>
                  <b>{pack ? units / pack.factor : units}</b>
                  <span>{pack && pack.factor > 1 ? `${pack.plural} of ${pack.factor}` : (pack?.plural ?? '')}</span>
                </ToTake>
                <OfEach>
                  {units === left ? 'all that stands there' : `of ${spell(left, item.packs)}`}
                  {commaLot(item, goods.lot)}
                </OfEach>
              </div>
            </TaskCard>
          </Route>
          {counting && pack && (
            <QuantityPad
              item={item}
              counts={{ [pack.id]: units / pack.factor }}
              active={pack.id}
              onCount={(packId, count) => input({ kind: 'count', packId, count })}
              onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
            />
          )}
        </>
      ) : (
        <PhoneBody className="mt-3">
          {waiting.length > 1 && (
            <p className="px-[18px] mb-2 text-[17px]">
              In the order of one walk, {task.metres} m. Scan a cart to load it, or to keep to what is on it.
            </p>
          )}
          <PhoneList>
            {waiting.map((g) => {
              const facts = book.items[g.itemId];
              return (
                <li key={goodsKey(g)}>
                  <button type="button" onClick={() => facts && input({ kind: 'code', code: facts.sku, how: 'typed' })}>
                    <b>{facts?.name}</b>
                    <span className="code">{g.suggestion?.code ?? ''}</span>
                    <span>
                      {facts && spell(standing(task, state, goodsKey(g)), facts.packs)}, at {g.fromCode}
                    </span>
                  </button>
                </li>
              );
            })}
          </PhoneList>
        </PhoneBody>
      )}
      <div style={{ marginTop: 'auto' }} />
      {!counting && <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />}
      <FloorKeys siteId={task.siteId}>
        {state.onto && (
          <Key type="button" onClick={() => input({ kind: 'clear' })}>
            Loaded
          </Key>
        )}
        {goods && (
          <Key type="button" aria-pressed={counting} onClick={() => setCounting((c) => !c)}>
            {counting ? 'Done' : 'Fewer'}
          </Key>
        )}
      </FloorKeys>
    </>
  );
}
