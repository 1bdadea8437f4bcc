import { spell } from '@vectrum/core/quantity';
import { insertsLeft, leftToPack, noteIsRead, pack, parcelInUse, parcelsNow, toPack, trustedRest } from '@vectrum/core/scan';
import { useEffect, useRef } from 'react';
import { Link, useParams } from 'react-router';
import { kitOf } from '../../bench/bench-lines';
import { type Closing, useClosing } from '../../bench/use-closing';
import { FeedbackBand } from '../../flow/band';
import { SpareList } from '../../flow/spare-goods';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, Key, KeyLink, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say } from '../../ui/phone/parts';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { ClosingForm } from './closing-form';
import { Labels } from './labels';

/** Packs an order with the phone, where its goods stand: on the way from the bins, or onto a pallet for the lorry. */
export function PackPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate key={code} kind="pack" taskKey={code} back={<Link to="/floor/pick">‹ Rounds</Link>}>
      {(ready) => <Pack ready={ready} />}
    </TaskGate>
  );
}

/** What the screen asks for, in a few words. */
function asked(left: number, trusted: number, noteRead: boolean, badge: boolean, serial: boolean, parcel: Closing): string {
  if (!noteRead) return badge ? 'Read the note, scan your badge' : 'Read the note';
  if (serial) return 'Scan its serial number';
  if (left > 0) return trusted === left ? 'All of it in the box?' : 'Scan the goods';
  if (parcel.weightG === null) return 'Weigh it';
  return parcel.offWeight ? 'Look into the box' : 'Have the label printed';
}

function Pack({ ready }: { ready: Ready<'pack'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const closing = useRef<Closing | null>(null);
  const flow = useFlow({
    flow: pack,
    task,
    ready,
    document: task.order,
    onAnswer: (command) => closing.current?.answered(command.kind, 'parcel' in command ? command.parcel : null),
    onRefused: (command, problem) => closing.current?.refused(command, problem.title ?? ''),
  });
  const { state, input } = flow;
  const parcels = parcelsNow(task, state);
  const left = leftToPack(task, state);
  const closed = left === 0 && (task.state !== 'picked' || (parcels.length > 0 && parcels.every((p) => !p.open)));
  const noteRead = noteIsRead(task, state);
  const trusted = trustedRest(task, state).reduce((n, l) => n + l.units, 0);
  const parcel = useClosing({ task, state, parcels, input, say: flow.say, onPark: () => undefined, scaleIs: 'asked' });
  useEffect(() => {
    closing.current = parcel;
  });
  usePageScan((code, how) => {
    if (closed || !parcel.hears(code)) flow.scan(code, how);
  });
  const all = task.lines.reduce((sum, l) => sum + l.picked, 0);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/pick">‹ Rounds</Link>
        <span className="code">{task.order}</span>
        <span>{closed ? 'packed' : `${left} of ${all} to go`}</span>
      </PhoneHead>
      <Ask>
        {closed ? `${task.customer} is packed` : asked(left, trusted, noteRead, task.noteBadge !== null, state.serialOf !== null, parcel)}
      </Ask>
      <PhoneBody>
        {closed ? (
          <Labels parcels={task.allParcels} unsent={flow.unsent.length} onWait={() => void ready.refetch()} />
        ) : (
          <>
            {task.note && !noteRead && (
              <Say className="text-[19px]">
                <Glyph name="blocked" /> {task.note}
              </Say>
            )}
            <SpareList spare={task.spare} book={book} />
            {left > 0 && insertsLeft(task, state).length > 0 && (
              <Say>
                <PhoneLink onClick={() => input({ kind: 'leave-out' })}>Leave out what only goes along</PhoneLink>
              </Say>
            )}
            {parcel.begun && left === 0 ? (
              <Say className="text-[17px]">
                {plural(task.lines.length, 'line', 'lines')}, {plural(all, 'piece', 'pieces')} in
              </Say>
            ) : (
              <PhoneList aria-label="Lines" className="mt-2">
                {task.lines.map((l) => {
                  const item = book.items[l.itemId];
                  const rest = toPack(state, l);
                  return (
                    <PhoneItem key={l.line}>
                      <div className="grid grid-cols-[1fr_auto] gap-x-3 px-[18px] py-2 border-b border-rule">
                        <b>
                          {item?.name}
                          {kitOf(task.kits, book, l.line)}
                        </b>
                        <Glyph name={rest === 0 ? 'full' : rest < l.picked ? 'half' : 'empty'} size={20} says />
                        <span>{rest === 0 ? `${spell(l.picked, item?.packs ?? [])} in` : `${spell(rest, item?.packs ?? [])} to go`}</span>
                      </div>
                    </PhoneItem>
                  );
                })}
              </PhoneList>
            )}
            {parcel.begun && left === 0 && <ClosingForm task={task} parcel={parcel} number={parcelInUse(task, state)} />}
          </>
        )}
      </PhoneBody>
      {(closed || left > 0) && (
        <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} lines={1} />
      )}
      <FloorKeys siteId={ready.siteId} document={task.order}>
        {closed ? (
          <KeyLink to="/floor/pick" next>
            Next round
          </KeyLink>
        ) : !noteRead && task.noteBadge === null ? (
          <Key type="button" next onClick={() => input({ kind: 'confirm' })}>
            Read, done
          </Key>
        ) : left > 0 && trusted === left ? (
          <Key type="button" next onClick={() => input({ kind: 'all' })}>
            All in
          </Key>
        ) : (
          <Key type="button" next={parcel.isReady} disabled={!parcel.isReady || left > 0} onClick={parcel.close}>
            {parcel.offWeight ? 'Weight is right' : left > 0 ? plural(left, 'piece', 'pieces') : 'Label'}
          </Key>
        )}
      </FloorKeys>
    </>
  );
}
