import { forThisVan, isEarly, laneNow, load, type LoadParcel, type LoadTask } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, Key, NoItem, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say } from '../../ui/phone/parts';
import { VanRail } from '../../ui/van-rail';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { SignPage } from './sign-page';

/** Loads a van: each parcel is scanned as it goes through the door, and the driver signs for them. */
export function LoadPage() {
  const { key: taskKey = '' } = useParams();
  return (
    <TaskGate key={taskKey} kind="load" taskKey={taskKey} back={<Link to="/floor/load">‹ Lanes</Link>}>
      {(ready) => <Load ready={ready} />}
    </TaskGate>
  );
}

/** Why a parcel that is not on the van stays, or that it waits. */
function waits(task: LoadTask, p: LoadParcel): string {
  if (p.held !== null) return `held: ${p.held}`;
  if (!p.labelled) return 'no label yet';
  if (p.missed) return 'missed its van';
  return isEarly(p.leavesAt, task.van) && p.leavesAt ? `for ${when(p.leavesAt)}` : 'to load';
}

function Load({ ready }: { ready: Ready<'load'> }) {
  const { task } = ready.bundle;
  const flow = useFlow({ flow: load, task, ready });
  const { state, input } = flow;
  const [signing, setSigning] = useState(false);
  usePageScan(flow.scan);
  const parcels = laneNow(task, state);
  const loaded = parcels.filter((p) => p.loaded);
  const left = forThisVan(task, state);
  const mine = parcels.filter((p) => p.loaded || !isEarly(p.leavesAt, task.van));
  const rest = parcels.filter((p) => !p.loaded);
  if (signing && loaded.length > 0)
    return (
      <SignPage
        task={task}
        loaded={loaded}
        left={left}
        onBack={() => setSigning(false)}
        onSign={(driver, signature) => {
          setSigning(false);
          input({ kind: 'hand-over', driver, signature });
        }}
      />
    );
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/load">‹ Lanes</Link>
        <span className="code">{task.lane}</span>
        <span>
          {loaded.length} of {mine.length} on
        </span>
      </PhoneHead>
      <Ask>{left.length > 0 ? 'Scan a parcel' : loaded.length > 0 ? 'All that may go is loaded' : 'Nothing to load'}</Ask>
      {left.length > 1 && (
        <Say className="text-[17px]">
          Or, all at once: <PhoneLink onClick={() => input({ kind: 'all' })}>Load all {left.length}</PhoneLink>
        </Say>
      )}
      <VanRail at={task.van} parcels={mine} />
      <PhoneBody>
        <PhoneList aria-label="Parcels">
          {rest.map((p) => (
            <PhoneItem key={p.code}>
              {state.early === p.code ? (
                <button type="button" onClick={() => input({ kind: 'take-along' })}>
                  <b className="code">{p.code}</b>
                  <Glyph name="go" size={22} />
                  <span>Take it along now</span>
                </button>
              ) : (
                <div className="grid grid-cols-[1fr_auto] gap-x-3 px-[18px] py-2 border-b border-rule">
                  <b className="code">{p.code}</b>
                  <span className={p.missed ? 'stamped' : undefined}>{waits(task, p)}</span>
                  <span>{p.customer}</span>
                </div>
              )}
            </PhoneItem>
          ))}
          {loaded.map((p) => (
            <PhoneItem key={p.code}>
              <button type="button" aria-label={`Take ${p.code} off the van`} onClick={() => input({ kind: 'off', parcel: p.code })}>
                <b className="code">{p.code}</b>
                <Glyph name="full" size={20} says="on the van" />
                <span>{p.customer}, tap to take it off</span>
              </button>
            </PhoneItem>
          ))}
          {parcels.length === 0 && <NoItem>No parcel stands in this lane. Closed parcels come here with their label.</NoItem>}
        </PhoneList>
      </PhoneBody>
      <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} lines={1} />
      <FloorKeys siteId={task.siteId}>
        {loaded.length > 0 && (
          <Key type="button" next={left.length === 0} onClick={() => setSigning(true)}>
            Hand over
          </Key>
        )}
      </FloorKeys>
    </>
  );
}
