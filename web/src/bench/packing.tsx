import { leftToPack, noteIsRead, openLine, pack, parcelInUse, parcelsNow, toPack } from '@vectrum/core/scan';
import { useState } from 'react';

import { FeedbackBand } from '../flow/band';
import { SpareList } from '../flow/spare-goods';
import type { Ready } from '../flow/task-gate';
import { useFlow } from '../flow/use-flow';
import { plural } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { useScanner } from '../scanner/use-scanner';
import { BenchLines } from './bench-lines';
import { useParcelBox } from './box/use-parcel-box';
import { BenchTape } from './bench-tape';
import { ClosedOrder } from './closed-order';
import { noChoice, type ParcelChoice, serviceOf } from './parcel-choice';
import { ParcelPanel } from './parcel-panel';
import { ParcelTabs } from './parcel-tabs';
import { Button, ButtonLink } from '../ui/button';
import { BenchTitle, BenchColumns, BenchSide, BenchFoot } from '../ui/bench/parts';

const isPaper = (code: string) => /^(S-\d+(-\d+)?|T-\d+)$/i.test(code.trim());

/** One order at the table: its lines on the left, the open parcel on the right; both fill as goods are scanned. */
export function Packing({ ready, onOther }: { ready: Ready<'pack'>; onOther: (code: string) => void }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const [choice, setChoice] = useState<ParcelChoice>(noChoice);
  const [offWeight, setOffWeight] = useState(false);
  const flow = useFlow({
    flow: pack,
    task,
    ready,
    document: task.order,
    onAnswer: (command) => command.kind === 'close-parcel' && setChoice(noChoice),
    onRefused: (_, problem) => setOffWeight(problem.title === 'Weight is off'),
  });
  const { state, input } = flow;
  const choose = (next: ParcelChoice) => {
    setOffWeight(false);
    setChoice(next);
  };
  const parcels = parcelsNow(task, state);
  const inUse = parcels.find((p) => p.number === parcelInUse(task, state));
  const all = task.lines.reduce((sum, l) => sum + l.picked, 0);
  const left = leftToPack(task, state);
  const closed = left === 0 && (task.state !== 'picked' || (parcels.length > 0 && parcels.every((p) => !p.open)));
  const noteRead = noteIsRead(task, state);
  const split = parcels.some((p) => p.open && p.number !== inUse?.number);
  useScanner((code) => (closed && isPaper(code) ? onOther(code) : flow.scan(code)));
  const box = useParcelBox({ task, parcels, number: parcelInUse(task, state), wanted: choice.carton });
  const begun = (inUse?.contents.length ?? 0) > 0;
  /** The rest goes into another parcel. */
  const more = left > 0 && !split;
  const lacks = [
    more && `${plural(left, 'piece', 'pieces')} to scan`,
    !noteRead && 'note to answer',
    begun && choice.weightG === null && 'weight',
    begun && choice.weightG !== null && choice.rate === null && 'service to choose',
  ].filter((l) => l !== false);
  const carton = box.chosen?.carton.code ?? '';
  const isReady = begun && noteRead && carton !== '' && choice.weightG !== null && choice.rate !== null;
  const close = () =>
    input({ kind: 'close', carton, weightG: choice.weightG ?? 0, service: serviceOf(choice), weightSeen: offWeight, more });
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
              <Button type="button" onClick={() => input({ kind: 'confirm' })}>
                Read, and done
              </Button>
            </div>
          )}
          <SpareList spare={task.spare} book={book} />
          <BenchLines
            lines={task.lines.map((l) => ({ ...l, rest: toPack(state, l) }))}
            next={closed ? undefined : openLine(task, state)?.line}
            book={book}
          />
        </BenchSide>
        <div className="bright">
          {closed ? (
            <ClosedOrder order={task.order} parcels={task.allParcels} onTheWay={flow.unsent.length} />
          ) : (
            <>
              <ParcelTabs parcels={parcels} inUse={parcelInUse(task, state)} onChoose={(number) => input({ kind: 'parcel', number })} />
              <ParcelPanel
                task={task}
                box={box}
                contents={inUse?.contents ?? []}
                rest={split ? 0 : left}
                next={openLine(task, state)?.line}
                canWeigh={begun}
                choice={choice}
                onChoice={choose}
              />
            </>
          )}
        </div>
      </BenchColumns>
      <BenchFoot>
        <BenchTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.offline ? flow.unsent : []} />
        <div className="blabel">
          <div className="weigh">
            <b>{closed ? 'Done' : typeof choice.rate === 'object' && choice.rate ? `Label, ${choice.rate.carrierName}` : 'Label'}</b>
            <span>
              {closed
                ? 'scan the next tote or docket'
                : lacks.slice(0, 2).map((l) => (
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
            <Button type="button" next={isReady && !more} disabled={!isReady} onClick={close}>
              <Glyph name="print" />{' '}
              {offWeight ? 'Looked: weight is right' : more && isReady ? 'Label, rest in another box' : 'Print label'}
            </Button>
          )}
        </div>
      </BenchFoot>
    </>
  );
}
