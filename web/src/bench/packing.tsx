import {
  leftToPack,
  noteIsRead,
  numbersOver,
  openLine,
  pack,
  parcelInUse,
  parcelsNow,
  serialsNow,
  toPack,
  trustedRest,
} from '@vectrum/core/scan';
import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { FeedbackBand } from '../flow/band';
import { SpareList } from '../flow/spare-goods';
import type { Ready } from '../flow/task-gate';
import { useFlow } from '../flow/use-flow';
import { plural } from '../ui/format';
import { Said } from '../ui/page';
import { Glyph } from '../ui/glyph';
import { useScanner } from '../scanner/use-scanner';
import { BenchLines } from './bench-lines';
import { BenchTape } from './bench-tape';
import { ClosedOrder } from './closed-order';
import { InsertsLeft } from './inserts-left';
import { isPaper } from './papers';
import { ParcelPanel } from './parcel-panel';
import { ParcelTabs } from './parcel-tabs';
import { ParkForm } from './park-form';
import { type Closing, useClosing } from './use-closing';
import { Button, ButtonLink, TextButton } from '../ui/button';
import { BenchTitle, BenchColumns, BenchSide, BenchFoot } from '../ui/bench/parts';

/** One order at the table: its lines on the left, the open parcel on the right; both fill as goods are scanned. */
export function Packing({ ready, onOther }: { ready: Ready<'pack'>; onOther: (code: string | null) => void }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const [parking, setParking] = useState(false);
  const closing = useRef<Closing | null>(null);
  const flow = useFlow({
    flow: pack,
    task,
    ready,
    document: task.order,
    onAnswer: (command) => {
      closing.current?.answered(command.kind, 'parcel' in command ? command.parcel : null);
      if (command.kind === 'park') onOther(null);
    },
    onRefused: (command, problem) => closing.current?.refused(command, problem.title ?? ''),
  });
  const { state, input } = flow;
  const parcels = parcelsNow(task, state);
  const inUse = parcels.find((p) => p.number === parcelInUse(task, state));
  const all = task.lines.reduce((sum, l) => sum + l.picked, 0);
  const left = leftToPack(task, state);
  const closed = left === 0 && (task.state !== 'picked' || (parcels.length > 0 && parcels.every((p) => !p.open)));
  const noteRead = noteIsRead(task, state);
  const serialsOf = (line: number) => serialsNow(task, state).flatMap((s) => (s.line === line ? [s.serial] : []));
  const over = numbersOver(task, state, parcelInUse(task, state));
  const parcel = useClosing({ task, state, parcels, input, say: flow.say, onPark: () => setParking(true) });
  useEffect(() => {
    closing.current = parcel;
  });
  useScanner((code) => {
    if (closed && isPaper(code)) return onOther(code);
    if (closed || !parcel.hears(code)) flow.scan(code);
  });
  // The goods whose scan has opened the order are its first.
  const { state: brought } = useLocation() as { state: { scanned?: string } | null };
  const navigate = useNavigate();
  useEffect(() => {
    if (!brought?.scanned) return;
    void navigate('.', { replace: true, state: null });
    flow.scan(brought.scanned);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the order opens
  }, []);
  return (
    <>
      <div>
        <FeedbackBand feedback={flow.feedback} />
      </div>
      <BenchTitle>
        <h1>{task.customer}</h1>
        <span className="note">
          <span className="code">{task.order}</span>, {task.channel.toLowerCase()}
          {task.tote && (
            <>
              , tote <span className="code">{task.tote}</span>
            </>
          )}
          <br />
          {plural(task.lines.length, 'line', 'lines')}, {plural(all, 'piece', 'pieces')}
        </span>
        {parking ? (
          <ParkForm onPark={(why) => input({ kind: 'park', why })} onClose={() => setParking(false)} />
        ) : (
          !closed && (
            <TextButton type="button" onClick={() => setParking(true)}>
              Park
            </TextButton>
          )
        )}
        <span className="go">
          <b>{closed ? '' : left}</b>
          <span>{closed ? 'packed' : `to go of ${all}`}</span>
        </span>
      </BenchTitle>
      <BenchColumns>
        <BenchSide>
          {task.note && !noteRead && (
            <div className="ack">
              <Glyph name="blocked" />
              <p>
                <span>Note from the customer</span>
                {task.note}
              </p>
              {task.noteBadge === null ? (
                <Button type="button" onClick={() => input({ kind: 'confirm' })}>
                  Read, and done
                </Button>
              ) : (
                <b>Scan your badge</b>
              )}
            </div>
          )}
          <SpareList spare={task.spare} book={book} />
          {over.length > 0 && (
            <Said>
              <Glyph name="blocked" /> Scan the serial number of what was taken out
            </Said>
          )}
          {!closed && state.outOf === null && trustedRest(task, state).length > 0 && (
            <Said>
              <Glyph name="full" /> Scanned at the bins
              <Button type="button" onClick={() => input({ kind: 'all' })}>
                All of it is in
              </Button>
            </Said>
          )}
          {!closed && <InsertsLeft task={task} state={state} book={book} onLeaveOut={() => input({ kind: 'leave-out' })} />}
          <BenchLines
            lines={task.lines.map((l) => ({ ...l, rest: toPack(state, l), serials: serialsOf(l.line) }))}
            kits={task.kits}
            serialOf={state.serialOf}
            onSerial={(code) => flow.scan(code, 'typed')}
            next={closed ? undefined : openLine(task, state)?.line}
            touched={closed || state.outOf !== null ? null : state.line}
            book={book}
            onRest={(packId, count) => input({ kind: 'count', packId, count })}
          />
        </BenchSide>
        <div className="bright">
          {closed ? (
            <ClosedOrder
              order={task.order}
              parcels={task.allParcels}
              onTheWay={flow.unsent.length}
              onOpen={(number) => input({ kind: 'open', number })}
              onWait={() => void ready.refetch()}
            />
          ) : (
            <>
              <ParcelTabs
                parcels={parcels}
                inUse={parcelInUse(task, state)}
                outOf={state.outOf}
                onChoose={(number) => input({ kind: 'parcel', number })}
                onOpen={(number) => input({ kind: 'open', number })}
                onApart={() => input({ kind: 'apart' })}
              />
              <ParcelPanel
                task={task}
                parcel={parcel}
                code={inUse?.code ?? ''}
                contents={inUse?.contents ?? []}
                rest={parcel.more ? left : 0}
                next={openLine(task, state)?.line}
              />
            </>
          )}
        </div>
      </BenchColumns>
      <BenchFoot>
        <BenchTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.offline ? flow.unsent : []} />
        <div className="blabel">
          <div className="weigh">
            <b>{closed ? 'Done' : typeof parcel.rate === 'object' && parcel.rate ? `Label, ${parcel.rate.carrierName}` : 'Label'}</b>
            <span>
              {closed
                ? 'scan the next tote or docket'
                : parcel.lacks.slice(0, 2).map((l) => (
                    <span key={l} className="block">
                      <Glyph name="empty" size={13} /> {l}
                    </span>
                  ))}
            </span>
          </div>
          {closed ? (
            <ButtonLink to="/bench" next>
              Next tote <Glyph name="go" size={16} />
            </ButtonLink>
          ) : (
            <Button type="button" next={parcel.isReady && !parcel.more} disabled={!parcel.isReady} onClick={parcel.close}>
              <Glyph name="print" />{' '}
              {parcel.offWeight ? 'Looked: weight is right' : parcel.more && parcel.isReady ? 'Label, rest in another box' : 'Print label'}
            </Button>
          )}
        </div>
      </BenchFoot>
    </>
  );
}
