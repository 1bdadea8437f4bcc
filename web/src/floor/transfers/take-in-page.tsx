import { commaLot, lotWords, spell } from '@vectrum/core/quantity';
import { onRoad, parcelsOnRoad, takeIn } from '@vectrum/core/scan';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Ask, Key, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say, TaskCard } from '../../ui/phone/parts';
import { Picture } from '../../ui/picture';
import { CountPad } from '../count-pad';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';

/** Takes in what comes from another site, as the dock takes in a delivery. */
export function TakeInPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate kind="take-in" taskKey={code} back={<Link to="/floor/transfers">‹ Transfers</Link>}>
      {(ready) => <TakeIn ready={ready} />}
    </TaskGate>
  );
}

function TakeIn({ ready }: { ready: Ready<'take-in'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const navigate = useNavigate();
  const flow = useFlow({
    flow: takeIn,
    task,
    ready,
    document: task.document,
    documents: [task.document],
    onAnswer: (command) => {
      if (command.kind === 'take-in-close') void navigate('/floor/transfers');
    },
  });
  const { state, input } = flow;
  const [open, setOpen] = useState<'number' | 'close' | null>(null);
  usePageScan((code, how) => {
    setOpen(null);
    flow.scan(code, how);
  });
  // Whoever scanned the label of a parcel to come here need not scan it again.
  const [search] = useSearchParams();
  const parcel = search.get('parcel');
  const told = useRef<string | null>(null);
  const { scan } = flow;
  useEffect(() => {
    if (!parcel || told.current === parcel) return;
    told.current = parcel;
    scan(parcel, 'scanned');
  }, [parcel, scan]);
  const goods = task.goods.find((g) => g.goodsId === state.hand?.goodsId);
  const item = goods && book.items[goods.itemId];
  const left = task.goods.filter((g) => onRoad(g, state) > 0);
  const away = parcelsOnRoad(task, state);
  const parcelsAway = `${plural(away.length, 'parcel was', 'parcels were')} not scanned: ${away.map((p) => p.code).join(', ')}.`;
  const to = state.hand?.isDamaged ? (task.apart?.code ?? task.dock.code) : (state.to?.code ?? task.dock.code);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/transfers">‹ Transfers</Link>
        <span>from {task.from}</span>
        <span>{left.length} left</span>
      </PhoneHead>
      <Ask>
        {open === 'close'
          ? 'Is that all?'
          : state.hand
            ? state.hand.units > 0
              ? 'Scan on, or book it in'
              : 'How many have come?'
            : left.length === 0
              ? 'All of it is in'
              : 'Scan the goods'}
      </Ask>
      {state.hand && goods && item ? (
        <>
          <TaskCard here>
            <Picture name={item.picture} size={open ? 56 : 84} />
            <div>
              <h2>{item.name}</h2>
              <p className="text-[19px]">
                <b>{state.hand.units > 0 ? spell(state.hand.units, item.packs) : 'none yet'}</b> of{' '}
                {spell(onRoad(goods, state), item.packs)}
                {commaLot(item, goods.lot)}
              </p>
              <p className="text-[17px]">
                {state.hand.isDamaged ? 'damaged, ' : ''}to <b className="code">{to}</b>
              </p>
            </div>
          </TaskCard>
          {open === 'number' ? (
            <CountPad
              item={item}
              onCount={(units) => {
                setOpen(null);
                if (units > 0) input({ kind: 'number', units });
              }}
              onBack={() => setOpen(null)}
            />
          ) : (
            <Say className="text-[17px]">
              <PhoneLink onClick={() => input({ kind: 'condition', isDamaged: !state.hand?.isDamaged })}>
                {state.hand.isDamaged ? 'It is good' : 'It is damaged'}
              </PhoneLink>{' '}
              <PhoneLink onClick={() => input({ kind: 'clear' })}>Let go</PhoneLink>
            </Say>
          )}
        </>
      ) : open === 'close' ? (
        <Say className="mt-3 text-[18px]">
          {left.length === 0
            ? `All that was sent is here.${away.length > 0 ? ` ${parcelsAway}` : ''}`
            : `${left.map((g) => `${spell(onRoad(g, state), book.items[g.itemId]?.packs ?? [])} of ${book.items[g.itemId]?.name ?? ''}`).join(', ')} did not come. ${away.length > 0 ? `${parcelsAway} ` : ''}The office settles who answers for it.`}
        </Say>
      ) : (
        <PhoneBody className="mt-3">
          <Say className="text-[17px]">
            Goods go to <b className="code">{to}</b> until another place is scanned.
            {task.parcels.length > 0 && (
              <>
                {' '}
                <b>
                  {task.parcels.length - away.length} of {plural(task.parcels.length, 'parcel', 'parcels')}
                </b>{' '}
                scanned here
                {away.length > 0 && (
                  <>
                    ; <span className="whitespace-nowrap">{away[0]?.code}</span> {away.length > 1 && `and ${away.length - 1} more `}to come
                  </>
                )}
                .
              </>
            )}
          </Say>
          <PhoneList>
            {task.goods.map((g) => {
              const facts = book.items[g.itemId];
              return (
                <PhoneItem key={g.goodsId}>
                  <button type="button" onClick={() => input({ kind: 'choose', goodsId: g.goodsId })}>
                    <b>{facts?.name}</b>
                    <Glyph name={progressGlyph(g.sent - onRoad(g, state), g.sent)} size={24} says />
                    <span>{[spell(g.sent, facts?.packs ?? []), lotWords(facts, g.lot)].filter(Boolean).join(', ')}</span>
                  </button>
                </PhoneItem>
              );
            })}
          </PhoneList>
        </PhoneBody>
      )}
      <div style={{ marginTop: 'auto' }} />
      {open !== 'number' && (
        <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />
      )}
      {open !== 'number' && (
        <FloorKeys siteId={task.siteId} document={task.document}>
          {state.hand && (
            <Key type="button" next={state.hand.units === 0} onClick={() => setOpen('number')}>
              Number
            </Key>
          )}
          {state.hand && state.hand.units > 0 && (
            <Key type="button" next onClick={() => input({ kind: 'confirm' })}>
              Book in
            </Key>
          )}
          {!state.hand && (
            <Key
              type="button"
              next={left.length === 0 || open === 'close'}
              onClick={() => (open === 'close' ? input({ kind: 'close' }) : setOpen('close'))}
            >
              {open === 'close' ? 'Yes, close it' : 'That is all'}
            </Key>
          )}
          {open === 'close' && (
            <Key type="button" onClick={() => setOpen(null)}>
              Back
            </Key>
          )}
        </FloorKeys>
      )}
    </>
  );
}
