import { floorOf, type PlanPoint } from '@vectrum/core/walk';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Dto } from '../../api/client';
import { age, clock, plural, when } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { GlyphCell, LinesTable } from '../../ui/table';
import { TapeColumn } from '../../ui/tape';
import { PlanCanvas } from '../shelves/plan/plan-canvas';
import { draftOf, segmentOf } from '../shelves/plan/plan-model';
import { Pattern, patternOf } from './release/pattern';

type Walk = Dto['WalkDto'];
const pointOf = (p: Dto['WalkPlaceDto'] | null): PlanPoint[] => (!p || p.x === null || p.y === null ? [] : [{ x: p.x, y: p.y }]);

/** Everybody who walks a round, each with a line of their own on the plan, and the tape of picking. */
export function WalksNow({ found, plan }: { found: Dto['WalksDto']; plan: Dto['PlanDto'] }) {
  const [chosen, setChosen] = useState(0);
  const drawn = useMemo(() => draftOf(plan), [plan]);
  const floor = useMemo(() => floorOf(drawn.shapes.flatMap((s, i) => (s.kind === 'wall' ? [] : [segmentOf(s, i)]))), [drawn]);
  const walks = useMemo(() => {
    const table = { x: found.tableX, y: found.tableY };
    return found.walks.map((w, i) => {
      const [here = table] = pointOf(w.at);
      const stops = w.ahead.flatMap(pointOf);
      const way = [here, ...stops, table];
      return {
        stops,
        here,
        line: way.flatMap((p, k) => (k === 0 ? [p] : floor.wayBetween(way[k - 1] ?? p, p))),
        ...patternOf(i),
        label: w.picker.split(' ')[0] ?? w.picker,
        chosen: i === chosen,
      };
    });
  }, [found, floor, chosen]);
  return (
    <div className="flex gap-6 min-h-0 flex-1">
      <div className="flex flex-col gap-4 flex-1 min-w-0 min-h-0">
        <LinesTable>
          <thead>
            <tr>
              <td />
              <GlyphCell />
              <th>Who</th>
              <th>Round</th>
              <th className="num">Stops</th>
              <th className="num">To walk</th>
              <th className="max-sm:hidden">Last</th>
              <th className="max-sm:hidden">A stop takes</th>
              <th>Through at</th>
              <th>Van</th>
            </tr>
          </thead>
          <tbody>
            {found.walks.map((w, i) => (
              <WalkRow key={`${w.code} ${w.personId}`} walk={w} index={i} chosen={i === chosen} onChoose={() => setChosen(i)} />
            ))}
          </tbody>
        </LinesTable>
        <div className="grid flex-1 min-h-[320px]">
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
        </div>
      </div>
      <div className="hidden xl:flex w-[260px] shrink-0 -mt-3">
        <TapeColumn stage="picking" />
      </div>
    </div>
  );
}

function WalkRow({ walk: w, index, chosen, onChoose }: { walk: Walk; index: number; chosen: boolean; onChoose: () => void }) {
  const isLate = w.leavesAt !== null && new Date(w.endsAt) > new Date(w.leavesAt);
  return (
    <tr>
      <td>
        <button
          type="button"
          className="grid place-items-center min-w-6 min-h-6"
          aria-pressed={chosen}
          aria-label={`Show the way of ${w.picker}`}
          onClick={onChoose}
        >
          <Pattern index={index} />
        </button>
      </td>
      <GlyphCell>
        <Glyph name={w.shortStops > 0 ? 'blocked' : progressGlyph(w.stopsDone, w.stops)} size={14} says />
      </GlyphCell>
      <td>
        <b>{w.picker}</b>
        <span className="note">{w.at ? <span className="code">{w.at.code}</span> : 'at the table'}</span>
      </td>
      <td>
        <Link className="code" to={`/picking/${w.code}`}>
          {w.code}
        </Link>
        <span className="note">{w.orders.length === 1 ? w.orders[0]?.customer : plural(w.orders.length, 'order', 'orders')}</span>
      </td>
      <td className="num">
        {w.stopsDone} of {w.stops}
      </td>
      <td className="num">{w.metres} m</td>
      <td className="max-sm:hidden">{w.lastAt ? `${age(w.lastAt)} ago` : ''}</td>
      <td className="max-sm:hidden">{w.secondsAStop === null ? <span className="soft">usual pace</span> : `${w.secondsAStop} s`}</td>
      <td className={isLate ? 'stamped' : ''}>
        {w.ahead.length === 0 ? 'to be set down' : clock(w.endsAt)}
        {isLate && ', too late'}
      </td>
      <td>{w.leavesAt ? when(w.leavesAt) : ''}</td>
    </tr>
  );
}
