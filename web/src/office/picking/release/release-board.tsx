import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  rectIntersection,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { floorOf } from '@vectrum/core/walk';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { useAct } from '../../../api/use-act';
import { useAddress } from '../../../ui/address';
import { Button } from '../../../ui/button';
import { plural } from '../../../ui/format';
import { Sentence } from '../../../ui/page';
import { Empty, ProblemNote, Skeleton } from '../../../ui/states';
import { segmentOf } from '../../shelves/plan/plan-model';
import { draftOf } from '../../shelves/plan/plan-model';
import { BoardFilters, type Most } from './board-filters';
import { filtered, filterOf, vansOf } from './board-filter';
import { costWords, metresWords, minutesWords } from './board-words';
import { CarriedDocket, Docket, DocketFace } from './docket';
import { groundOf, loadOf, type Target, walkLine } from './draft-rounds';
import { byPlaces, CARRYING } from './keys-that-carry';
import { Lacking } from './lacking';
import { RoundGroup, WaitingGroup } from './round-group';
import { ShiftRulers } from './shift-rulers';
import { patternOf } from './pattern';
import { useDraft } from './use-draft';
import { useProposal } from './use-proposal';

const PlanCanvas = lazy(async () => ({ default: (await import('../../shelves/plan/plan-canvas')).PlanCanvas }));
/** How long rounds may get better by themselves: few orders are soon as good as they get. */
const secondsFor = (orders: number) => Math.min(30, Math.max(2, orders / 8));

/** What waits, rounds over it with their walks, who walks them and when. */
export function Board({ board, plan }: { board: Dto['ReleaseBoardDto']; plan: Dto['PlanDto'] }) {
  const navigate = useNavigate();
  const [params] = useAddress();
  const [now] = useState(() => Date.now());
  const filter = filterOf(params);
  const [most, setMost] = useState<Most>({ orders: board.roundOrders, kilos: board.roundKilos, litres: board.roundLitres, pooled: false });
  const [hands, setHands] = useState<ReadonlySet<number>>(() => new Set(board.pickers.filter((p) => p.here).map((p) => p.id)));
  const [chosen, setChosen] = useState(0);
  const [held, setHeld] = useState<{ code?: string; round?: number } | null>(null);
  const [over, setOver] = useState<Target | null>(null);
  const drawn = useMemo(() => draftOf(plan), [plan]);
  const segments = useMemo(() => drawn.shapes.flatMap((s, i) => (s.kind === 'wall' ? [] : [segmentOf(s, i)])), [drawn]);
  const ground = useMemo(() => groundOf(board, floorOf(segments)), [board, segments]);
  const limits = useMemo(
    () => ({ orders: most.orders, units: Infinity, weightG: most.kilos * 1000, volumeMl: most.litres * 1000 }),
    [most],
  );
  const people = useMemo(() => board.pickers.filter((p) => hands.has(p.id)), [board.pickers, hands]);
  const shown = useMemo(() => filtered(board, filterOf(params), now), [board, params, now]);
  const draft = useDraft(board, shown, ground, limits, people, now);
  const ready = shown.filter((o) => o.lacks.length === 0);
  const [asked, setAsked] = useState<string[]>([]);
  const proposal = useProposal((rounds) => draft.put(rounds.map((r) => r.flatMap((i) => asked[i] ?? []))));
  const propose = () => {
    const vans = new Map(vansOf(ready, now).flatMap((g) => g.list.map((o) => [o.code, g.key] as const)));
    const orders = vansOf(ready, now).flatMap((g) => g.list);
    const index = new Map(board.places.map((p, i) => [p.id, i]));
    setAsked(orders.map((o) => o.code));
    setChosen(0);
    proposal.start({
      segments,
      table: board.table,
      places: board.places.map((p) => ground.at.get(p.id) ?? null),
      orders: orders.map((o) => ({
        ...loadOf(o),
        places: [...new Set(o.stops.flatMap((s) => index.get(s.placeId) ?? []))],
        departure: vans.get(o.code) ?? '',
      })),
      limits,
      seconds: secondsFor(orders.length),
    });
  };
  const versions = new Map(board.orders.map((o) => [o.code, o.version]));
  const send = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/rounds', {
          headers: once,
          body: {
            siteId: board.siteId,
            rounds: draft.rounds.map((r, i) => ({
              orders: r.orders.map((o) => ({ code: o.code, version: versions.get(o.code) ?? 0 })),
              sentTo: draft.walkers[i]?.person ?? null,
              pooled: most.pooled,
            })),
          },
        }),
      ),
    onDone: () => navigate(board.picks ? '/picking' : '/packing'),
  });
  const walks = useMemo(
    () =>
      draft.rounds.map((r, i) => ({
        ...walkLine(r.orders, ground),
        ...patternOf(i),
        label: String(i + 1),
        chosen: i === chosen,
      })),
    [draft.rounds, ground, chosen],
  );
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: byPlaces }),
  );
  const metres = draft.rounds.reduce((n, r) => n + r.metres, 0);
  const minutes = draft.rounds.reduce((n, r) => n + r.minutes, 0);
  const onRounds = draft.rounds.reduce((n, r) => n + r.orders.length, 0);
  const saved = draft.oneByOne - metres;
  const dropped = ({ active, over: on }: DragEndEvent) => {
    setHeld(null);
    setOver(null);
    const what = active.data.current as { code?: string; round?: number } | undefined;
    const to = on?.data.current as { target?: Target; person?: number } | undefined;
    if (what?.code && to?.target) {
      proposal.stop();
      draft.move(what.code, to.target);
    }
    if (what?.round !== undefined && to?.person !== undefined) draft.give(what.round, to.person);
  };
  const heldCost = held?.code && over !== null ? draft.cost(held.code, over) : null;
  const costWordsNow = heldCost && costWords(heldCost.metres, heldCost.minutes);
  if (board.orders.length === 0)
    return <Empty title="Nothing waits to be picked">Orders come here once they are promised whole and nothing holds them.</Empty>;
  const heldOrder = held?.code ? board.orders.find((o) => o.code === held.code) : undefined;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={(args) => {
        const pointed = pointerWithin(args);
        return pointed.length > 0 ? pointed : rectIntersection(args);
      }}
      onDragStart={({ active }) => setHeld(active.data.current ?? null)}
      onDragOver={({ over: on }) => setOver((on?.data.current as { target?: Target } | undefined)?.target ?? null)}
      onDragEnd={dropped}
      onDragCancel={() => {
        setHeld(null);
        setOver(null);
      }}
      accessibility={CARRYING}
    >
      <BoardFilters board={board} filter={filter} most={most} onMost={setMost} now={now} />
      <div className="release">
        <div className="dockets">
          {draft.rounds.map((r, i) => (
            <RoundGroup
              key={i}
              index={i}
              figures={r}
              person={draft.walkers[i]?.person ?? null}
              people={board.pickers}
              chosen={i === chosen}
              onChoose={() => setChosen(i)}
              onPerson={(id) => {
                if (id !== null) setHands(new Set([...hands, id]));
                draft.give(i, id);
              }}
            />
          ))}
          {draft.rounds.length > 0 && (
            <WaitingGroup title="A round of its own" note="Drag an order here" id="new">
              {null}
            </WaitingGroup>
          )}
          <WaitingGroup title="On no round" note={plural(draft.waiting.length, 'order', 'orders')} id="waiting">
            {draft.waiting.map((o) => (
              <Docket key={o.code} order={o} on="on no round" />
            ))}
          </WaitingGroup>
          <Lacking orders={shown.filter((o) => o.lacks.length > 0)} />
        </div>
        <div className="release-plan">
          <div className="release-says">
            <Sentence aria-live="polite">
              {!board.picks && 'Nobody walks rounds here: what is sent goes to the packing table at once. '}
              {draft.rounds.length === 0
                ? `${plural(ready.length, 'order is', 'orders are')} ready to be picked.`
                : `${plural(draft.rounds.length, 'round', 'rounds')} for ${plural(onRounds, 'order', 'orders')}: ${metresWords(metres)} in ${minutesWords(minutes)}.`}
              {saved > 0.5 && ` One by one ${metresWords(draft.oneByOne)}: ${Math.round((100 * saved) / draft.oneByOne)}% less to walk.`}
              {proposal.busy && ' Getting better…'}
            </Sentence>
            <div className="flex gap-2">
              {proposal.busy ? (
                <Button type="button" onClick={proposal.stop}>
                  Stop there
                </Button>
              ) : (
                <Button type="button" next={draft.rounds.length === 0} disabled={ready.length === 0} onClick={propose}>
                  {draft.rounds.length === 0 ? 'Propose rounds' : 'Propose anew'}
                </Button>
              )}
              {draft.rounds.length > 0 && (
                <Button type="button" next disabled={proposal.busy || send.isPending} onClick={() => send.mutate()}>
                  Send {plural(draft.rounds.length, 'round', 'rounds')}
                </Button>
              )}
            </div>
          </div>
          {send.error && <ProblemNote problem={send.error} />}
          <Suspense fallback={<Skeleton />}>
            <PlanCanvas
              draft={drawn}
              bays={plan.bays}
              shading="fullness"
              editing={false}
              selected={null}
              walks={walks}
              onSelect={() => undefined}
              onShape={() => undefined}
              onPoint={() => undefined}
              onBay={() => undefined}
            />
          </Suspense>
          <People pickers={board.pickers} hands={hands} onHands={setHands} />
          <ShiftRulers people={people} rounds={draft.rounds} walkers={draft.walkers} vans={board.vans} now={now} onChoose={setChosen} />
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {heldOrder ? (
          <CarriedDocket>
            <DocketFace order={heldOrder} />
            {costWordsNow && <b>{costWordsNow}</b>}
          </CarriedDocket>
        ) : held?.round !== undefined ? (
          <CarriedDocket>
            <b>Round {held.round + 1}</b>
          </CarriedDocket>
        ) : null}
      </DragOverlay>
    </DndContext>
  );
}

/** Who is there to walk: each is put in or left out by a touch. Nobody: whoever comes takes the most urgent. */
function People({
  pickers,
  hands,
  onHands,
}: {
  pickers: readonly Dto['BoardPickerDto'][];
  hands: ReadonlySet<number>;
  onHands: (ids: ReadonlySet<number>) => void;
}) {
  return (
    <fieldset className="hands">
      <legend>{hands.size === 0 ? 'Pickers draw the most urgent' : 'Shared out among'}</legend>
      {pickers.map((p) => (
        <label key={p.id}>
          <input
            type="checkbox"
            checked={hands.has(p.id)}
            onChange={(e) => onHands(new Set(e.target.checked ? [...hands, p.id] : [...hands].filter((id) => id !== p.id)))}
          />
          {p.name}
        </label>
      ))}
    </fieldset>
  );
}
