import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import type { Dto } from '../../../api/client';
import { Select } from '../../../ui/input';
import { plural } from '../../../ui/format';
import { kilos, metresWords, minutesWords } from './board-words';
import { Docket } from './docket';
import type { Figures } from './draft-rounds';
import { Pattern } from './pattern';

/** One round of the draft: its walk's pattern, what it comes to, who walks it, its dockets. */
export function RoundGroup({
  index,
  figures,
  person,
  people,
  chosen,
  onChoose,
  onPerson,
}: {
  index: number;
  figures: Figures;
  person: number | null;
  people: readonly Dto['BoardPickerDto'][];
  chosen: boolean;
  onChoose: () => void;
  onPerson: (id: number | null) => void;
}) {
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: `round/${index}`, data: { target: { round: index } } });
  const { setNodeRef: dragRef, attributes, listeners } = useDraggable({ id: `carry/${index}`, data: { round: index } });
  return (
    <section
      ref={dropRef}
      className={`round-group ${isOver ? 'over' : ''}`}
      aria-label={`Round ${index + 1}`}
      aria-current={chosen ? 'true' : undefined}
    >
      <header>
        <button
          type="button"
          className="handle"
          ref={dragRef}
          {...attributes}
          {...listeners}
          aria-label={`Give round ${index + 1} to somebody`}
        >
          <Pattern index={index} />
          <b>{index + 1}</b>
        </button>
        <button type="button" className="says" onClick={onChoose} aria-pressed={chosen}>
          {plural(figures.orders.length, 'order', 'orders')}, {metresWords(figures.metres)}, {minutesWords(figures.minutes)}
          <span className={figures.fits ? 'mid' : 'stamped'}>
            {`${kilos(figures.weightG)}${figures.fits ? '' : ', more than a round holds'}`}
          </span>
        </button>
        <Select
          aria-label={`Who walks round ${index + 1}`}
          value={person ?? ''}
          onChange={(e) => onPerson(e.target.value === '' ? null : Number(e.target.value))}
        >
          <option value="">anybody</option>
          {people.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </Select>
      </header>
      <ul>
        {figures.orders.map((o) => (
          <Docket key={o.code} order={o} on={`on round ${index + 1}`} />
        ))}
      </ul>
    </section>
  );
}

/** A group of dockets that is no round. */
export function GroupFrame({
  title,
  note,
  dropRef,
  isOver,
  children,
}: {
  title: string;
  note: ReactNode;
  dropRef?: (node: HTMLElement | null) => void;
  isOver?: boolean;
  children: ReactNode;
}) {
  return (
    <section ref={dropRef} className={`round-group ${isOver ? 'over' : ''}`} aria-label={title}>
      <header>
        <span className="says">
          <b>{title}</b>
          <span className="mid">{note}</span>
        </span>
      </header>
      <ul>{children}</ul>
    </section>
  );
}

/** Where dockets may be put that are on no round. */
export function WaitingGroup({ title, note, id, children }: { title: string; note: ReactNode; id: string; children: ReactNode }) {
  const { setNodeRef: dropRef, isOver } = useDroppable({ id, data: { target: id } });
  return (
    <GroupFrame title={title} note={note} dropRef={dropRef} isOver={isOver}>
      {children}
    </GroupFrame>
  );
}
