import { useDroppable } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import type { Dto } from '../../../api/client';
import { clock } from '../../../ui/format';
import { clockIn, minutesWords } from './board-words';
import { freeIn, type Figures, type Walker } from './draft-rounds';

const LEAST_MINUTES = 60;

/** A ruler of time for each person: what they have in hand, the rounds that they get, and the vans as flags through all of them. */
export function ShiftRulers({
  people,
  rounds,
  walkers,
  vans,
  now,
  onChoose,
}: {
  people: readonly Dto['BoardPickerDto'][];
  rounds: readonly Figures[];
  walkers: readonly Walker[];
  vans: readonly Dto['BoardVanDto'][];
  now: number;
  onChoose: (index: number) => void;
}) {
  const flags = vans.map((v) => ({ ...v, in: (new Date(v.at).getTime() - now) / 60_000 })).filter((v) => v.in > 0);
  const ends = walkers.map((w) => w.to);
  // The vans that the rounds come near to; one that leaves much later would make all else too small to read.
  const busy = Math.max(LEAST_MINUTES, ...ends, ...people.map(freeIn));
  const near = flags.filter((f) => f.in <= busy * 3);
  const span = Math.max(busy, ...near.map((f) => f.in)) * 1.04;
  const left = (minutes: number) => `${(100 * minutes) / span}%`;
  return (
    <div className="rulers" role="group" aria-label="Who walks when">
      <div className="flags" aria-hidden="true">
        {near.map((f) => (
          <span key={`${f.at} ${f.name}`} style={{ left: left(f.in) }}>
            {clock(f.at)}
          </span>
        ))}
      </div>
      {people.map((p) => (
        <Ruler key={p.id} person={p} until={untilOf(p, walkers, now)}>
          {near.map((f) => (
            <i key={`${f.at} ${f.name}`} className="flag" style={{ left: left(f.in) }} />
          ))}
          {freeIn(p) > 0 && <span className="stint ahead" style={{ left: 0, width: left(freeIn(p)) }} title="What they have in hand" />}
          {rounds.map((r, i) => {
            const w = walkers[i];
            if (!w || w.person !== p.id) return null;
            const late = new Date(r.leavesAt).getTime() < now + w.to * 60_000;
            return (
              <button
                key={i}
                type="button"
                className={`stint ${late ? 'late' : ''}`}
                style={{ left: left(w.from), width: left(w.to - w.from) }}
                title={`Round ${i + 1}, ${clockIn(w.from, now)} to ${clockIn(w.to, now)}${late ? `, misses ${clock(r.leavesAt)}` : ''}`}
                onClick={() => onChoose(i)}
              >
                {i + 1}
              </button>
            );
          })}
        </Ruler>
      ))}
    </div>
  );
}

/** When somebody is through with what they have and get. */
function untilOf(person: Dto['BoardPickerDto'], walkers: readonly Walker[], now: number): string {
  const ends = walkers.filter((w) => w.person === person.id).map((w) => w.to);
  if (ends.length > 0) return `until ${clockIn(Math.max(...ends), now)}`;
  const free = freeIn(person);
  return free > 0 ? `free in ${minutesWords(free)}` : person.here ? 'free now' : 'not seen today';
}

function Ruler({ person, until, children }: { person: Dto['BoardPickerDto']; until: string; children: ReactNode }) {
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: `person/${person.id}`, data: { person: person.id } });
  return (
    <div className={`ruler ${isOver ? 'over' : ''}`} ref={dropRef}>
      <span className="name">
        {person.name}
        <span className="mid">{until}</span>
      </span>
      <div className="rail">{children}</div>
    </div>
  );
}
