import { lotWords, spell } from '@vectrum/core/quantity';
import { goodsKey, goodsToBring, refill, refillAtHand, type RefillGoods, type RefillState, toBring, whyThere } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSite } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { QuantityPad } from '../flow/quantity-pad';
import { type Ready, TaskGate } from '../flow/task-gate';
import { useFlow } from '../flow/use-flow';
import { plural, when } from '../ui/format';
import { Ask, Key, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say } from '../ui/phone/parts';
import { BinLabel } from './bin-label';
import { CountPad } from './count-pad';
import { DoneBin } from './done-bin';
import { SiteName } from './device-switches';
import { FloorTape } from './floor-tape';
import { GoodsTaken } from './goods-card';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';

/** Brings goods from the reserve to where pickers go: scan the bin, the goods, then the pick face or a cart. */
export function RefillPage() {
  const { site } = useSite();
  return (
    <TaskGate kind="refill" taskKey={site?.id} back={<Link to="/floor">‹ Tasks</Link>}>
      {(ready) => <Refill ready={ready} />}
    </TaskGate>
  );
}

/** What the screen asks for, in a few words. */
function asked(state: RefillState, goods: RefillGoods | undefined): string {
  if (!goods) return 'Every pick face is full';
  if (state.asks !== null) return 'How many are there?';
  if (!state.hand) return state.from === goods.fromPlaceId ? 'Scan the goods' : 'Scan the bin';
  return state.hand.lotSeen ? 'Scan where they go' : 'Scan the lot on it, or choose it';
}

/** Why goods are wanted. */
const why = (g: RefillGoods): string =>
  g.leavesAt === null ? 'the pick face runs low' : `${plural(g.orders, 'order', 'orders')} for ${when(g.leavesAt)}`;

function Refill({ ready }: { ready: Ready<'refill'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: refill, task, ready });
  const { state, input } = flow;
  const [counting, setCounting] = useState(false);
  usePageScan(flow.scan);
  const goods = refillAtHand(task, state);
  const item = goods && book.items[goods.itemId];
  const all = goodsToBring(task, { ...state, from: null });
  const later = all.filter((g) => g !== goods);
  const units = goods ? (state.hand?.units ?? toBring(state, goods)) : 0;
  const pack = item?.packs.find((p) => units % p.factor === 0) ?? item?.packs.at(-1);
  const isAtBin = goods !== undefined && state.from === goods.fromPlaceId;
  const held = state.hand !== null;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
        <span>{all.length + task.more} to refill</span>
      </PhoneHead>
      <Ask>{asked(state, goods)}</Ask>
      {goods && item ? (
        <>
          <div className="mt-3">
            {held ? (
              goods.suggestion ? (
                <BinLabel code={goods.suggestion.code} way={whyThere(goods, units, item)} />
              ) : (
                <p className="px-[18px] text-[20px]">No bin that is picked from is free. Scan a cart, or any that has room.</p>
              )
            ) : isAtBin ? (
              <DoneBin code={goods.fromCode} says="right bin" />
            ) : (
              <BinLabel code={goods.fromCode} way={why(goods)} />
            )}
          </div>
          <GoodsTaken
            item={item}
            units={units}
            isHeld={isAtBin || held}
            slim={counting || state.asks !== null}
            of={[
              lotWords(item, goods.lot),
              !held && goods.suggestion && `for ${goods.suggestion.code}`,
              units < goods.there ? `of ${spell(goods.there, item.packs)}` : 'all that lies there',
            ]
              .filter(Boolean)
              .join(', ')}
          />
          {state.hand && !state.hand.lotSeen && goods.lot !== null && (
            <Say>
              <PhoneLink onClick={() => input({ kind: 'lot', lot: goods.lot ?? '' })}>It is {lotWords(item, goods.lot)}</PhoneLink>
            </Say>
          )}
          {held && goods.suggestion && later.length > 0 && !counting && (
            <Say className="text-[17px]">Or scan a cart, and bring several on one walk.</Say>
          )}
          {state.asks !== null && (
            <CountPad item={item} onCount={(units) => input({ kind: 'there', units })} onBack={() => input({ kind: 'clear' })} />
          )}
          {counting && pack && (
            <QuantityPad
              item={item}
              counts={{ [pack.id]: units / pack.factor }}
              active={pack.id}
              onCount={(packId, count) => input({ kind: 'count', packId, count })}
              onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
            />
          )}
          {!held && state.asks === null && later.length > 0 && (
            <PhoneBody className="mt-3">
              <Say className="text-[17px]">Then, in the order of one walk of {task.metres} m</Say>
              <PhoneList>
                {later.map((g) => (
                  <PhoneItem key={goodsKey(g)}>
                    <button type="button" onClick={() => input({ kind: 'code', code: g.fromCode, how: 'typed' })}>
                      <b>{book.items[g.itemId]?.name}</b>
                      <span className="code">{g.fromCode}</span>
                      <span>
                        {spell(toBring(state, g), book.items[g.itemId]?.packs ?? [])}, {why(g)}
                      </span>
                    </button>
                  </PhoneItem>
                ))}
              </PhoneList>
            </PhoneBody>
          )}
        </>
      ) : (
        <Say className="text-[18px]">What orders wait for, and what runs low at a pick face, shows here while the reserve has it.</Say>
      )}
      <div style={{ marginTop: 'auto' }} />
      {!counting && state.asks === null && (
        <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />
      )}
      <FloorKeys siteId={task.siteId}>
        {isAtBin && !held && state.asks === null && (
          <Key type="button" onClick={() => input({ kind: 'not-here' })}>
            Too few
          </Key>
        )}
        {held && (
          <Key type="button" aria-pressed={counting} onClick={() => setCounting((c) => !c)}>
            {counting ? 'Done' : 'How many'}
          </Key>
        )}
      </FloorKeys>
    </>
  );
}
