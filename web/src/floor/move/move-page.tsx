import { commaLot, spell } from '@vectrum/core/quantity';
import { type MovableGoods, movable, moveGoods, type MoveInput, type Purpose, PURPOSE_SAYS, PURPOSES } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useMe } from '../../api/queries';
import { FeedbackBand } from '../../flow/band';
import { QuantityPad } from '../../flow/quantity-pad';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { type Codebook, type FlowInput, useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, Key, Keys, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say, TaskCard, Typed } from '../../ui/phone/parts';
import { Picture } from '../../ui/picture';
import { DoneBin } from '../done-bin';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { ActPicture } from './act-picture';

/** Takes goods out of one place: to anywhere, for a purpose of the house, or found to be in another condition. */
export function MovePage() {
  const { code = '' } = useParams();
  return (
    <TaskGate kind="move" taskKey={code} back={<Link to="/floor/move">‹ Move</Link>}>
      {(ready) => <Move key={code} ready={ready} />}
    </TaskGate>
  );
}

type Send = (input: FlowInput<MoveInput>) => void;
const CONDITION_SAYS: Readonly<Record<string, string>> = {
  held: 'held',
  damaged: 'damaged',
  'to-inspect': 'to be inspected',
  apart: 'not ours',
};

function Move({ ready }: { ready: Ready<'move'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: moveGoods, task, ready });
  const { state, input } = flow;
  const me = useMe();
  const [open, setOpen] = useState<'number' | 'use' | null>(null);
  // What was used up or found otherwise may be pictured, until something else is scanned.
  const [pictured, setPictured] = useState(false);
  usePageScan((code, how) => {
    setOpen(null);
    setPictured(false);
    flow.scan(code, how);
  });
  const goods = movable(task, state);
  const { hand } = state;
  const there = hand && goods.find((g) => g.itemId === hand.itemId && g.lotId === hand.lotId && g.condition === hand.condition);
  const item = hand && book.items[hand.itemId];
  const asked = state.asks === null ? goods : goods.filter((g) => g.itemId === state.asks);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/move">‹ Move</Link>
        <span className="code">{task.from.code}</span>
        <span>{plural(goods.length, 'lot', 'lots')} there</span>
      </PhoneHead>
      <Ask>
        {hand
          ? 'Scan where it goes'
          : state.asks !== null
            ? 'Which of these?'
            : goods.length === 0
              ? 'Nothing lies here'
              : 'Scan the goods'}
      </Ask>
      <div className="mt-3">
        <DoneBin code={task.from.code} says={hand ? 'taken from here' : 'what lies here'} />
      </div>
      {hand && item && there ? (
        <>
          <TaskCard here>
            <Picture name={item.picture} size={open ? 56 : 84} />
            <div>
              <h2>{item.name}</h2>
              <p className="text-[19px]">
                <b>{spell(hand.units, item.packs)}</b> of {spell(there.units, item.packs)}
                {commaLot(item, there.lot)}
                {hand.condition !== 'good' && `, ${CONDITION_SAYS[hand.condition] ?? hand.condition}`}
              </p>
            </div>
          </TaskCard>
          {open === 'number' && <Number item={item} units={hand.units} input={input} onDone={() => setOpen(null)} />}
          {open === 'use' && (
            <UseUp
              onUse={(purpose, note, costCentre) => {
                setOpen(null);
                setPictured(true);
                input({ kind: 'issue', purpose, note, costCentre });
              }}
              onBack={() => setOpen(null)}
            />
          )}
          {open === null && (
            <Say className="text-[17px]">
              {me.data?.rights.includes('inspect') &&
                (['held', 'damaged', 'good'] as const)
                  .filter((c) => c !== hand.condition)
                  .map((becomes) => (
                    <span key={becomes}>
                      <PhoneLink
                        onClick={() => {
                          setPictured(true);
                          input({ kind: 'condition', becomes, note: '' });
                        }}
                      >
                        {becomes === 'good' ? 'It is good' : becomes === 'held' ? 'Hold it' : 'It is damaged'}
                      </PhoneLink>{' '}
                    </span>
                  ))}
              <PhoneLink onClick={() => input({ kind: 'clear' })}>Let go</PhoneLink>
            </Say>
          )}
        </>
      ) : (
        <Goods goods={asked} book={book} input={input} />
      )}
      <div style={{ marginTop: 'auto' }} />
      {pictured && !hand && flow.last?.activityId != null && <ActPicture key={flow.last.activityId} activityId={flow.last.activityId} />}
      {open === null && <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />}
      {open === null && (
        <FloorKeys siteId={task.siteId}>
          {hand && item?.tracking !== 'serial' && (
            <Key type="button" onClick={() => setOpen('number')}>
              Number
            </Key>
          )}
          {hand && (
            <Key type="button" onClick={() => setOpen('use')}>
              Use up
            </Key>
          )}
        </FloorKeys>
      )}
    </>
  );
}

function Goods({ goods, book, input }: { goods: readonly MovableGoods[]; book: Codebook; input: Send }) {
  if (goods.length === 0)
    return <Say className="mt-3 text-[18px]">By the books it is empty. If something lies here, have the bin counted.</Say>;
  return (
    <PhoneBody className="mt-3">
      <PhoneList>
        {goods.map((g) => {
          const item = book.items[g.itemId];
          return (
            <PhoneItem key={`${g.itemId}/${g.lotId}/${g.condition}`}>
              <button type="button" onClick={() => input({ kind: 'choose', itemId: g.itemId, lotId: g.lotId, condition: g.condition })}>
                <b>
                  {item?.name}
                  {commaLot(item, g.lot)}
                </b>
                <Glyph name={g.condition === 'good' ? 'go' : 'held'} size={22} />
                <span>
                  {spell(g.units, item?.packs ?? [])}
                  {g.condition !== 'good' && `, ${CONDITION_SAYS[g.condition] ?? g.condition}`}
                  {g.spare < g.units && `, rounds come for ${g.units - g.spare}`}
                </span>
              </button>
            </PhoneItem>
          );
        })}
      </PhoneList>
    </PhoneBody>
  );
}

function Number({
  item,
  units,
  input,
  onDone,
}: {
  item: NonNullable<Codebook['items'][string]>;
  units: number;
  input: Send;
  onDone: () => void;
}) {
  const [counts, setCounts] = useState<Record<number, number>>({});
  const [active, setActive] = useState(item.packs.find((p) => p.factor === 1)?.id ?? 0);
  const said = item.packs.reduce((n, p) => n + (counts[p.id] ?? 0) * p.factor, 0);
  return (
    <>
      <QuantityPad
        item={item}
        counts={counts}
        active={active}
        onCount={(packId, count) => {
          setActive(packId);
          setCounts({ ...counts, [packId]: count });
        }}
        onActive={setActive}
      />
      <Keys style={{ marginTop: 12 }}>
        <Key
          type="button"
          next
          onClick={() => {
            onDone();
            if (said > 0) input({ kind: 'number', units: said });
          }}
        >
          {spell(said > 0 ? said : units, item.packs)}
        </Key>
      </Keys>
    </>
  );
}

/** What the house takes goods for itself. */
function UseUp({ onUse, onBack }: { onUse: (purpose: Purpose, note: string, costCentre: string) => void; onBack: () => void }) {
  const [purpose, setPurpose] = useState<Purpose | null>(null);
  const [note, setNote] = useState('');
  const [centre, setCentre] = useState('');
  if (purpose === null)
    return (
      <PhoneList className="mt-2" aria-label="What for">
        {PURPOSES.map((p) => (
          <PhoneItem key={p}>
            <button type="button" onClick={() => setPurpose(p)}>
              <b>{PURPOSE_SAYS[p]}</b>
            </button>
          </PhoneItem>
        ))}
        <PhoneItem>
          <button type="button" onClick={onBack}>
            <b>Back</b>
          </button>
        </PhoneItem>
      </PhoneList>
    );
  return (
    <Typed
      className="grid-cols-1"
      onSubmit={(e) => {
        e.preventDefault();
        onUse(purpose, note, centre.trim());
      }}
    >
      <input
        autoFocus
        autoComplete="off"
        aria-label="Why, or for whom"
        placeholder="Why, or for whom"
        maxLength={60}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
      <input
        autoComplete="off"
        aria-label="Cost centre"
        placeholder="Cost centre, if any"
        maxLength={20}
        value={centre}
        onChange={(e) => setCentre(e.target.value)}
      />
      <Key next className="px-5">
        {PURPOSE_SAYS[purpose]}
      </Key>
    </Typed>
  );
}
