import { commaLot, lotWords, spell } from '@vectrum/core/quantity';
import { gather, type GatherParcel, nextGather, spareOf, toGather } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Ask, Key, Keys, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say, TaskCard, ToTake, Typed } from '../../ui/phone/parts';
import { Picture } from '../../ui/picture';
import { BinLabel } from '../bin-label';
import { CountPad } from '../count-pad';
import { DoneBin } from '../done-bin';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { BuiltForm } from './built-form';

/** Gathers what goes to another site, bin by bin, and sends it off. */
export function GatherPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate kind="gather" taskKey={code} back={<Link to="/floor/transfers">‹ Transfers</Link>}>
      {(ready) => <GatherOrBuild ready={ready} />}
    </TaskGate>
  );
}

/** Gathering, and for an assembly what was built of it, each with the scanner to itself. */
function GatherOrBuild({ ready }: { ready: Ready<'gather'> }) {
  const [isBuilt, setBuilt] = useState(false);
  return isBuilt ? (
    <BuiltForm code={ready.bundle.task.document} onBack={() => setBuilt(false)} />
  ) : (
    <Gather ready={ready} onBuilt={() => setBuilt(true)} />
  );
}

function Gather({ ready, onBuilt }: { ready: Ready<'gather'>; onBuilt: () => void }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const navigate = useNavigate();
  const flow = useFlow({
    flow: gather,
    task,
    ready,
    document: task.document,
    documents: [task.document],
    onAnswer: (command) => {
      if (command.kind === 'send-off') void navigate('/floor/transfers');
    },
  });
  const { state, input } = flow;
  const [open, setOpen] = useState<'number' | 'send' | null>(null);
  usePageScan((code, how) => {
    setOpen(null);
    flow.scan(code, how);
  });
  const next = nextGather(task, state);
  // Bins are scanned in whatever order people come by them.
  const lineHere = task.lines.find((l) => toGather(l, state) > 0 && l.bins.some((b) => b.placeId === state.at && spareOf(l, b, state) > 0));
  const line = task.lines.find((l) => l.lineId === state.hand?.lineId) ?? lineHere ?? next?.line;
  const item = line && book.items[line.itemId];
  const here = task.lines.flatMap((l) => l.bins).find((b) => b.placeId === state.at);
  const isAt = here !== undefined && line?.bins.some((b) => b.placeId === state.at && spareOf(line, b, state) > 0) === true;
  const lots = isAt && line ? line.bins.filter((b) => b.placeId === state.at && spareOf(line, b, state) > 0) : [];
  const chosen = lots.find((b) => b.lotId === state.hand?.lotId) ?? lots[0];
  const done = task.lines.filter((l) => toGather(l, state) <= 0).length;
  const isSent = task.document.startsWith('T-');
  const isBegun = task.lines.some((l) => toGather(l, state) < l.units);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to={isSent ? '/floor/transfers' : `/shelves/builds/${task.document}`}>‹ {isSent ? 'Transfers' : 'Assembly'}</Link>
        <span>{isSent ? `to ${task.to}` : task.to}</span>
        <span>
          {done} of {task.lines.length}
        </span>
      </PhoneHead>
      <Ask>
        {!next && !state.hand
          ? restSays(isSent, done === task.lines.length, isBegun)
          : !isAt
            ? 'Scan the bin'
            : state.hand
              ? 'Scan on, or confirm'
              : 'Scan the goods'}
      </Ask>
      {line && item && next ? (
        <>
          <div className="mt-3">
            {isAt && here ? (
              <DoneBin code={here.code} says="right bin" />
            ) : (
              <BinLabel code={next.bin.code} way={`${spell(next.units, item.packs)} to take${commaLot(item, next.bin.lot)}`} />
            )}
          </div>
          <TaskCard here={isAt}>
            <Picture name={item.picture} size={open ? 56 : 84} />
            <div>
              <h2>{item.name}</h2>
              <ToTake several>
                <b>
                  {spell(
                    state.hand?.units ?? Math.min(toGather(line, state), chosen ? spareOf(line, chosen, state) : next.units),
                    item.packs,
                  )}
                </b>
              </ToTake>
              <p className="text-[17px]">
                {[lotWords(item, chosen?.lot), `${spell(toGather(line, state), item.packs)} still wanted`].filter(Boolean).join(', ')}
              </p>
            </div>
          </TaskCard>
          {state.hand && lots.length > 1 && open === null && (
            <Say className="text-[17px]">
              {lots
                .filter((b) => b.lotId !== state.hand?.lotId)
                .map((b) => (
                  <span key={b.lotId}>
                    <PhoneLink onClick={() => input({ kind: 'choose', lotId: b.lotId })}>It is {lotWords(item, b.lot)}</PhoneLink>{' '}
                  </span>
                ))}
            </Say>
          )}
          {open === 'number' && state.hand && (
            <CountPad
              item={item}
              onCount={(units) => {
                setOpen(null);
                input({ kind: 'number', units });
              }}
              onBack={() => setOpen(null)}
            />
          )}
        </>
      ) : (
        <Say className="mt-3 text-[18px]">
          {isBegun
            ? isSent
              ? 'All that can be gathered stands together. Put its paper on it, and send it off.'
              : 'All that can be gathered stands together. Once it is built, say so here or in the office.'
            : 'No bin has goods of it that rounds do not come for. The office can call it off, or wait.'}
        </Say>
      )}
      {!isAt && open === null && (
        <PhoneBody className="mt-3">
          <PhoneList>
            {task.lines.map((l) => (
              <PhoneItem key={l.lineId}>
                <button
                  type="button"
                  disabled={l.bins.length === 0}
                  onClick={() => l.bins[0] && input({ kind: 'code', code: l.bins[0].code, how: 'typed' })}
                >
                  <b>{book.items[l.itemId]?.name}</b>
                  <Glyph name={progressGlyph(l.units - toGather(l, state), l.units)} size={22} says />
                  <span>
                    {spell(l.units, book.items[l.itemId]?.packs ?? [])}
                    {l.bins.length === 0 && toGather(l, state) > 0 && ', in no bin'}
                  </span>
                </button>
              </PhoneItem>
            ))}
          </PhoneList>
        </PhoneBody>
      )}
      {open === 'send' && (
        <SendOff
          parcels={task.parcels}
          onSend={(carrier, tracking) => input({ kind: 'send', carrier, tracking })}
          onBack={() => setOpen(null)}
        />
      )}
      <div style={{ marginTop: 'auto' }} />
      {open === null && <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />}
      {open === null && (
        <FloorKeys siteId={task.siteId} document={task.document}>
          {state.hand && (
            <>
              <Key type="button" onClick={() => setOpen('number')}>
                Number
              </Key>
              <Key type="button" next onClick={() => input({ kind: 'confirm' })}>
                Taken
              </Key>
            </>
          )}
          {!state.hand && isBegun && isSent && (
            <Key type="button" next={!next} onClick={() => setOpen('send')}>
              Send off
            </Key>
          )}
          {!state.hand && isBegun && !isSent && (
            <Key type="button" next={!next} disabled={flow.unsent.length > 0} onClick={onBuilt}>
              It is built
            </Key>
          )}
        </FloorKeys>
      )}
    </>
  );
}

/** By whom it goes; both may stay empty where the house drives it itself. */
function SendOff({
  parcels,
  onSend,
  onBack,
}: {
  parcels: readonly GatherParcel[];
  onSend: (carrier: string, tracking: string) => void;
  onBack: () => void;
}) {
  const [carrier, setCarrier] = useState(() => [...new Set(parcels.flatMap((p) => p.carrier ?? []))].join(', '));
  const [tracking, setTracking] = useState('');
  return (
    <>
      {parcels.length > 0 && (
        <Say className="text-[17px]">
          {plural(parcels.length, 'parcel goes', 'parcels go')}: <b className="code">{parcels.map((p) => p.code).join(', ')}</b>
          {parcels.some((p) => !p.isReady) && <span className="stamped"> A label has not come yet</span>}
        </Say>
      )}
      <Typed
        onSubmit={(e) => {
          e.preventDefault();
          onSend(carrier, tracking);
        }}
      >
        <input
          autoFocus
          autoComplete="off"
          aria-label="Carrier"
          placeholder="Carrier, or own van"
          maxLength={60}
          value={carrier}
          onChange={(e) => setCarrier(e.target.value)}
        />
        <input
          autoComplete="off"
          aria-label="Tracking number"
          placeholder="Its number"
          maxLength={60}
          value={tracking}
          onChange={(e) => setTracking(e.target.value)}
        />
        <Key next className="px-5">
          It is gone
        </Key>
      </Typed>
      <Keys style={{ marginTop: 12 }}>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
      </Keys>
    </>
  );
}

/** What the page says when nothing more can be gathered. */
function restSays(isSent: boolean, isWhole: boolean, isBegun: boolean): string {
  if (!isBegun) return 'Nothing can be gathered';
  if (isSent) return 'Send it off';
  return isWhole ? 'All parts are together' : 'Some parts are missing';
}
