import { lotWords, spell } from '@vectrum/core/quantity';
import { countSpots, openSpots, type Spot, spotAtHand } from '@vectrum/core/scan';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSite } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { type Ready, TaskGate } from '../flow/task-gate';
import { useFlow } from '../flow/use-flow';
import { Ask, Key, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Route, RouteNode, Say, TaskCard } from '../ui/phone/parts';
import { Glyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { BinLabel } from './bin-label';
import { DoneBin } from './done-bin';
import { CountPad } from './count-pad';
import { SiteName } from './device-switches';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';

/** Counts bins that somebody has reported: scan the bin, then scan each piece or key how many there are. */
export function CountPage() {
  const { site } = useSite();
  return (
    <TaskGate kind="count" taskKey={site?.id} back={<Link to="/floor">‹ Tasks</Link>}>
      {(ready) => <Count ready={ready} />}
    </TaskGate>
  );
}

/** Why a bin is counted. */
const why = (s: Spot): string => (s.isOwn ? `${s.why} by you; somebody else’s eyes are worth more` : s.by ? `${s.why}, ${s.by}` : s.why);

function Count({ ready }: { ready: Ready<'count'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: countSpots, task, ready });
  const { state, input } = flow;
  const [keying, setKeying] = useState(false);
  usePageScan(flow.scan);
  const spot = spotAtHand(task, state);
  const item = spot && book.items[spot.itemId];
  const open = openSpots(task, state);
  const later = open.filter((s) => s !== spot);
  const isAt = spot !== undefined && state.at === spot.placeId;
  const scanned = state.hand?.units ?? 0;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
        <span>{open.length} to count</span>
      </PhoneHead>
      <Ask>{!spot ? 'Nothing to count' : !isAt ? 'Scan the bin' : scanned > 0 ? 'Scan on, or confirm' : 'How many are there?'}</Ask>
      {spot && item ? (
        <>
          <div className="mt-3">
            {isAt ? <DoneBin code={spot.placeCode} says="right bin" /> : <BinLabel code={spot.placeCode} way={why(spot)} />}
          </div>
          <Route>
            <RouteNode last>
              <i />
              <Glyph name={scanned > 0 ? 'half' : 'empty'} />
            </RouteNode>
            <TaskCard here={isAt}>
              <Picture name={item.picture} size={keying ? 56 : 96} />
              <div>
                <h2>{item.name}</h2>
                <p className="text-[17px]">
                  {[lotWords(item, spot.lot), scanned > 0 ? `${spell(scanned, item.packs)} scanned` : 'Count all of it that lies here']
                    .filter(Boolean)
                    .join(', ')}
                </p>
              </div>
            </TaskCard>
          </Route>
          {isAt && !keying && scanned === 0 && (
            <Say>
              <PhoneLink onClick={() => input({ kind: 'number', units: 0 })}>None is there</PhoneLink>
            </Say>
          )}
          {isAt && keying && (
            <CountPad
              item={item}
              onCount={(units) => {
                setKeying(false);
                input({ kind: 'number', units });
              }}
              onBack={() => setKeying(false)}
            />
          )}
          {!isAt && later.length > 0 && (
            <PhoneBody className="mt-3">
              <Say className="text-[17px]">Then, in the order of one walk of {task.metres} m</Say>
              <PhoneList>
                {later.map((s) => (
                  <PhoneItem key={s.id}>
                    <button type="button" onClick={() => input({ kind: 'code', code: s.placeCode, how: 'typed' })}>
                      <b>{book.items[s.itemId]?.name}</b>
                      <span className="code">{s.placeCode}</span>
                      <span>{why(s)}</span>
                    </button>
                  </PhoneItem>
                ))}
              </PhoneList>
            </PhoneBody>
          )}
        </>
      ) : (
        <Say className="text-[18px]">Where a picker finds too few, the bin shows here until somebody else has counted it.</Say>
      )}
      <div style={{ marginTop: 'auto' }} />
      {!keying && <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />}
      {!keying && (
        <FloorKeys siteId={task.siteId}>
          {isAt && scanned > 0 && (
            <Key type="button" next onClick={() => input({ kind: 'confirm' })}>
              That is all
            </Key>
          )}
          {isAt && scanned === 0 && (
            <Key type="button" next onClick={() => setKeying(true)}>
              Number
            </Key>
          )}
        </FloorKeys>
      )}
    </>
  );
}
