import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { inPacks, packName, spell } from '@vectrum/core/quantity';
import {
  currentStop,
  currentTote,
  inHandAt,
  isAtBin,
  isLotSeen,
  isEmptyRound,
  isSetDown,
  pick,
  wantedAt,
  type Codebook,
  type Hand,
  type ItemFacts,
  type PickStop,
} from '@vectrum/core/scan';
import { useCallback } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, ask, at } from '../api/client';
import { useSite } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { kept } from '../flow/kept';
import { SpareList } from '../flow/spare-goods';
import { type Ready, TaskGate } from '../flow/task-gate';
import { QuantityPad } from '../flow/quantity-pad';
import { useFlow } from '../flow/use-flow';
import { plural, when, whole } from '../ui/format';
import { Glyph, progressGlyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { Shown } from '../ui/states';
import { SiteName } from './device-switches';
import { BinLabel } from './bin-label';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';
import {
  NoItem,
  PhoneHead,
  Ask,
  PhoneBody,
  PhoneList,
  KeyLink,
  Key,
  TaskCard,
  Route,
  RouteNode,
  ToTake,
  OfEach,
  PhoneItem,
} from '../ui/phone/parts';

/** Rounds that wait, oldest promise first; one's own on top. */
export function PickList() {
  const navigate = useNavigate();
  const { site } = useSite();
  const rounds = useQuery({
    queryKey: key('rounds', site?.id),
    queryFn: () => kept(`round-page-${site?.id ?? ''}`, () => ask(api.GET('/api/rounds', at(site)))),
    enabled: site !== undefined,
  });
  usePageScan(useCallback((code) => void navigate(`/floor/pick/${code.trim().toUpperCase()}`), [navigate]));
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
      </PhoneHead>
      <Ask>Which round?</Ask>
      <PhoneBody className="mt-3">
        <Shown query={rounds}>
          {({ rows: all }) => {
            const list = all.filter((r) => r.state !== 'set-down').sort((a, b) => Number(b.mine) - Number(a.mine));
            return (
              <PhoneList>
                {list.map((r, i) => (
                  <PhoneItem key={r.code} next={i === 0}>
                    <Link to={`/floor/pick/${r.code}`}>
                      <b>
                        {r.urgent && 'Urgent: '}
                        {r.customer}
                      </b>
                      <Glyph name={progressGlyph(r.stopsDone, r.stops)} size={24} says />
                      <span>
                        <span className="code">{r.code}</span>, {plural(r.stops - r.stopsDone, 'stop', 'stops')}, {r.metres} m, by{' '}
                        {when(r.leavesAt ?? r.promisedAt)}
                        {r.picker && !r.mine ? `, ${r.picker.split(' ')[0]} is on it` : ''}
                      </span>
                    </Link>
                  </PhoneItem>
                ))}
                {list.length === 0 && <NoItem>No round waits. The office sends orders to picking.</NoItem>}
              </PhoneList>
            );
          }}
        </Shown>
      </PhoneBody>
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

interface Here {
  stop: PickStop | undefined;
  toteId: number | null;
  atBin: boolean;
  inHand: number;
  setDown: boolean;
  /** Whether a number may be keyed for what is in hand. */
  mayKey: boolean;
  mustScanBin: boolean;
  /** Whether the lot or serial number of what is in hand is still to be seen. */
  wantsLot: boolean;
}

function asked({ stop, toteId, atBin, inHand, setDown, mayKey, mustScanBin, wantsLot }: Here): string {
  if (setDown) return 'Set down. Ready to pack';
  if (!stop) return 'Set the tote down';
  if (toteId === null) return 'Scan an empty tote';
  if (wantsLot) return 'Scan the lot on it, or choose it';
  if (inHand > 0 && mustScanBin && !atBin) return 'Scan its bin too';
  if (inHand > 0) return mayKey ? 'How many? Or scan on' : 'Scan the next, or the tote';
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
  const isOver = isEmptyRound(task, state);
  const done = task.stops.filter((s) => wantedAt(state, s) <= 0).length;
  const mustScanBin = task.mustScanBin ?? false;
  const wantsLot = stop !== undefined && inHand > 0 && !isLotSeen(state, stop);
  const mayKey = stop !== undefined && inHand > 0 && (atBin || !mustScanBin) && wantedAt(state, stop) > 1 && !task.scansEach;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/pick" className="code">
          ‹ {task.round}
        </Link>
        <progress className="walk" value={done} max={Math.max(1, task.stops.length)} aria-label="Stops done" />
        <span>
          {Math.min(done + 1, task.stops.length)} of {task.stops.length}
        </span>
      </PhoneHead>
      <SpareList spare={task.spare} book={book} />
      <Ask className="pb-3">
        {isOver ? 'This round is over' : asked({ stop, toteId, atBin, inHand, setDown, mayKey, mustScanBin, wantsLot })}
      </Ask>
      {stop ? (
        <StopView
          task={task}
          book={book}
          stop={stop}
          wanted={wantedAt(state, stop)}
          inHand={inHand}
          atBin={atBin}
          tote={tote?.code ?? null}
          slim={mayKey}
        />
      ) : setDown ? (
        <KeyLink to="/floor/pick" next className="mx-[14px]">
          Next round
        </KeyLink>
      ) : (
        <BinLabel
          code={Object.values(book.places).find((p) => p.kind === 'packing-table' && p.siteId === task.siteId)?.code ?? 'TABLE'}
          way="scan the label of the packing table"
        />
      )}
      {mayKey && stop && state.hand && <KeyNumber item={book.items[stop.itemId]} hand={state.hand} input={input} />}
      <div style={{ marginTop: 'auto' }} />
      {/* The pad has the room while it is wanted. */}
      {!mayKey && <FloorTape entries={flow.newest} onUndo={flow.undo} unsent={flow.unsent} offline={flow.offline} lines={1} />}
      <FloorKeys siteId={task.siteId} document={task.round}>
        {wantsLot && stop.lot !== null ? (
          <Key type="button" onClick={() => input({ kind: 'lot', lot: stop.lot ?? '' })}>
            It is {stop.lot}
          </Key>
        ) : stop && inHand > 0 ? (
          <Key type="button" onClick={() => input({ kind: 'confirm' })}>
            Into tote
          </Key>
        ) : (
          <Key
            type="button"

            disabled={!stop || inHand > 0}
            onClick={() => stop && input({ kind: 'not-here', stopId: stop.id })}
          >
            Not here
          </Key>
        )}
      </FloorKeys>
    </>
  );
}

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

function StopView({
  task,
  book,
  stop,
  wanted,
  inHand,
  atBin,
  tote,
  slim,
}: {
  task: Ready<'pick'>['bundle']['task'];
  book: Codebook;
  stop: PickStop;
  wanted: number;
  inHand: number;
  atBin: boolean;
  tote: string | null;
  /** Room is wanted beneath for the pad. */
  slim: boolean;
}) {
  const item = book.items[stop.itemId];
  const counts = item ? inPacks(wanted, item.packs) : [];
  return (
    <>
      {atBin || inHand > 0 ? (
        <Route style={{ marginTop: 0 }}>
          <RouteNode>
            <i />
            <Glyph name="full" />
          </RouteNode>
          <div className="donebin">
            <span className="code">{stop.placeCode}</span>
            <span style={{ fontWeight: 460, fontSize: 18, color: 'var(--color-ink-2)' }}>{atBin ? 'right bin' : 'goods first'}</span>
          </div>
        </Route>
      ) : (
        <BinLabel
          code={stop.placeCode}
          way={tote === null ? 'take an empty tote with you' : stop.metres > 0 ? `${stop.metres} m on` : 'right here'}
        />
      )}
      <Route style={atBin || inHand > 0 ? { marginTop: 0 } : undefined}>
        <RouteNode>
          <i />
          <Glyph name={inHand > 0 ? 'half' : 'empty'} />
        </RouteNode>
        <TaskCard className={atBin ? 'here' : ''}>
          <Picture name={item?.picture} size={slim ? 56 : 96} />
          <div>
            <h2>{item?.name}</h2>
            <ToTake className={slim || counts.length > 1 ? 'several' : ''}>
              {counts.map(({ pack, count }) => (
                <div key={pack.id} className="flex items-end gap-[8px]">
                  <b>{whole(count)}</b>
                  <span>{packName(pack, count)}</span>
                </div>
              ))}
            </ToTake>
            <OfEach>
              {[stop.lot && `lot ${stop.lot}`, inHand > 0 && item && `${spell(inHand, item.packs)} in hand`].filter(Boolean).join(', ')}
            </OfEach>
          </div>
        </TaskCard>
        {!slim && (
          <RouteNode last>
            <i />
            <Glyph name={tote ? 'full' : 'empty'} />
          </RouteNode>
        )}
        <div className="drop" hidden={slim}>
          <p>
            {tote ? `Into tote ${tote}` : 'Into an empty tote'}
            <span>
              {task.order}, {task.customer}
            </span>
          </p>
        </div>
      </Route>
    </>
  );
}
