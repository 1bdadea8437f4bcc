import { useDraggable } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import type { BoardOrder } from './board-filter';
import { stopsWords } from './board-words';
import { when } from '../../../ui/format';

/** An order as a slip that is dragged from round to round; Space takes it up, arrows carry it, Space lets it go. */
export function Docket({ order, on }: { order: BoardOrder; on: string }) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: `order/${order.code}`, data: { code: order.code } });
  return (
    <li>
      <button
        type="button"
        ref={setNodeRef}
        className={`docket ${isDragging ? 'lifted' : ''}`}
        {...attributes}
        {...listeners}
        aria-label={`${order.code}, ${order.customer}, ${on}`}
      >
        <DocketFace order={order} />
      </button>
    </li>
  );
}

/** A docket while it is carried, with what it would cost where it is held. */
export function CarriedDocket({ children }: { children: ReactNode }) {
  return <div className="docket carried">{children}</div>;
}

/** A docket that cannot be taken anywhere yet. */
export function LyingDocket({ children }: { children: ReactNode }) {
  return <li className="docket">{children}</li>;
}

/** What a docket says. */
export function DocketFace({ order }: { order: BoardOrder }) {
  return (
    <>
      <b>
        {order.urgent && 'Urgent: '}
        {order.customer}
      </b>
      <span className="num">{when(order.leavesAt)}</span>
      <span className="mid">
        <span className="code">{order.code}</span>, {order.units} in {stopsWords(order.stops.length)}
      </span>
    </>
  );
}
