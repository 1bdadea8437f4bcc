import { type Codebook, isEmptyRound, pick, wantedAt, type Hand, type ItemFacts } from '@vectrum/core/scan';
import { useCallback, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useMe } from '../../api/queries';
import { FeedbackBand } from '../../flow/band';
import { useScansEach } from '../../flow/device-choices';
import { QuantityPad } from '../../flow/quantity-pad';
import { SpareList } from '../../flow/spare-goods';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { Ask, Key, KeyLink, PhoneHead } from '../../ui/phone/parts';
import { BinLabel } from '../bin-label';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { PassingWord } from '../on-passing';
import { usePageScan } from '../scan-context';
import { asked, hereOf } from './asked';
import { FreshLabel } from './fresh-label';
import { OtherLots, WhyOver } from './lot-choice';
import { NothingMine, OthersWalk } from './others-walk';
import { StopView } from './stop-view';
import { TherePad } from './there-pad';
import { TotesRow } from './totes-row';

/** Loads a round and the site's codes, then runs the flow. */
export function PickPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate key={code} kind="pick" taskKey={code} back={<Link to="/floor/pick">‹ Rounds</Link>}>
      {(ready) => <Pick ready={ready} />}
    </TaskGate>
  );
}

function Pick({ ready }: { ready: Ready<'pick'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({
    flow: pick,
    task,
    ready,
    document: task.orders.length === 1 ? task.orders[0]?.code : task.round,
    documents: [task.round, ...task.orders.map((o) => o.code)],
  });
  const { state, input } = flow;
  const [typed, setTyped] = useState<string | null>(null);
  const { scan } = flow;
  usePageScan(
    useCallback(
      (code, how) => {
        setTyped(how === 'typed' ? code : null);
        scan(code, how);
      },
      [scan],
    ),
  );
  const me = useMe();
  const [each] = useScansEach(me.data?.id);
  const here = hereOf(task, state, (itemId) => each || book.items[itemId]?.scanEach === true);
  const { stop, inHand, mayKey } = here;
  const item = stop && book.items[stop.itemId];
  const tote = placeCode(book, here.tote) ?? null;
  const isOver = isEmptyRound(task, state);
  const own = task.stops.filter((s) => s.by === undefined);
  const done = own.filter((s) => wantedAt(state, s) <= 0).length;
  const only = !task.pooled && task.orders.length === 1 ? task.orders[0] : undefined;
  const taken = state.pending.some((c) => c.kind === 'take' || c.kind === 'help');
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/pick" className="code">
          ‹ {task.round}
        </Link>
        <progress className="walk" value={done} max={Math.max(1, own.length)} aria-label="Stops done" />
        <span>{own.length > 0 && `${Math.min(done + 1, own.length)} of ${own.length}`}</span>
      </PhoneHead>
      {!taken && !here.setDown && <OthersWalk others={here.others} onTake={() => input({ kind: 'take' })} />}
      <SpareList spare={task.spare} book={book} />
      <TotesRow task={task} state={state} book={book} now={here.toTie?.id ?? here.order?.id} />
      <Ask className="pb-3">{isOver ? 'This round is over' : asked(task, here, here.stop && book.items[here.stop.itemId])}</Ask>
      {here.asksThere && stop && item ? (
        <TherePad
          key={stop.id}
          item={item}
          wanted={wantedAt(state, stop)}
          onThere={(units) => input({ kind: 'there', units })}
          onBack={() => input({ kind: 'clear' })}
        />
      ) : (
        <>
          {stop ? (
            <StopView
              book={book}
              stop={stop}
              here={here}
              wanted={wantedAt(state, stop)}
              tote={tote}
              count={task.orders.length}
              slim={mayKey || here.asksWhy}
              onFull={() => input({ kind: 'full' })}
            />
          ) : here.setDown ? (
            <>
              <KeyLink to={task.pooled ? `/floor/sort/${task.round}` : '/floor/pick'} next className="mx-[14px]">
                {task.pooled ? 'Sort it' : 'Next round'}
              </KeyLink>
              {only && me.data?.rights.includes('pack') && (
                <KeyLink to={`/floor/pack/${only.code}`} className="mx-[14px] mt-2.5">
                  Pack it here
                </KeyLink>
              )}
            </>
          ) : here.others.length > 0 ? (
            <NothingMine />
          ) : (
            <BinLabel
              code={codeOfKind(book, task.siteId, task.pooled ? 'sorting-wall' : 'packing-table')}
              way={`scan the label of the ${task.pooled ? 'sorting wall' : 'packing table'}`}
            />
          )}
          {here.wantsLot && stop && <OtherLots stop={stop} onLot={(lot) => input({ kind: 'lot', lot })} />}
          {here.asksWhy && <WhyOver onReason={(reason) => input({ kind: 'reason', reason })} />}
          {mayKey && stop && state.hand && <KeyNumber item={item} hand={state.hand} input={input} />}
          {!mayKey && <FreshLabel typed={typed} book={book} />}
          {inHand === 0 && !here.asksWhy && <PassingWord code={placeCode(book, state.atBin)} />}
          <div style={{ marginTop: 'auto' }} />
          {/* The pad has the room while it is wanted. */}
          {!mayKey && !here.asksWhy && (
            <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} lines={1} />
          )}
          <FloorKeys siteId={task.siteId} document={task.round}>
            {here.asksWhy ? (
              <Key type="button" onClick={() => input({ kind: 'clear' })}>
                Let go
              </Key>
            ) : here.wantsLot && stop && stop.lot !== null ? (
              <Key type="button" onClick={() => input({ kind: 'lot', lot: stop.lot ?? '' })}>
                It is {stop.lot}
              </Key>
            ) : stop && inHand > 0 ? (
              <Key type="button" onClick={() => input({ kind: 'confirm' })}>
                Into tote
              </Key>
            ) : !stop && here.others.length > 0 ? (
              <Key type="button" next disabled={taken} onClick={() => input({ kind: 'help' })}>
                Help
              </Key>
            ) : (
              <Key type="button" disabled={!stop || inHand > 0} onClick={() => stop && input({ kind: 'not-here', stopId: stop.id })}>
                Too few
              </Key>
            )}
          </FloorKeys>
        </>
      )}
    </>
  );
}

const placeCode = (book: Codebook, id: number | null | undefined): string | undefined =>
  Object.values(book.places).find((p) => p.id === id)?.code;

/** The first place of a kind at a site, to show by its name where any of them will do. */
const codeOfKind = (book: Codebook, siteId: number, kind: string): string =>
  Object.values(book.places).find((p) => p.kind === kind && p.siteId === siteId)?.code ?? kind.replace('-', ' ');

/** The number of what is in hand, keyed: one piece was scanned, the rest is counted. */
function KeyNumber({
  item,
  hand,
  input,
}: {
  item: ItemFacts | undefined;
  hand: Hand;
  input: (given: { kind: 'count'; packId: number; count: number }) => void;
}) {
  const pack = item?.packs.find((p) => p.id === hand.packId);
  if (!item || !pack) return null;
  return (
    <QuantityPad
      item={item}
      counts={{ [pack.id]: (hand.units - hand.before) / pack.factor }}
      active={pack.id}
      fresh={!hand.keyed}
      onCount={(packId, count) => input({ kind: 'count', packId, count })}
      onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
    />
  );
}
