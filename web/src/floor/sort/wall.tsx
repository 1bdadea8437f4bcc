import { orderAt, progressOf, type SortState, type SortTask, type WallSlot } from '@vectrum/core/scan';
import { classes } from '../../ui/classes';
import { Glyph, progressGlyph } from '../../ui/glyph';

/**
 * The wall as it hangs: the same slots in the same places. The one to use is in the highlighter, a complete one is ink. `slim`: on a
 * phone only the row of the slot to use is shown, since room is wanted for keying a number.
 */
export function Wall({ task, state, slim }: { task: SortTask; state: SortState; slim: boolean }) {
  const rowOf = (index: number) => Math.floor(index / task.wall.columns);
  const meant = rowOf(task.slots.findIndex((s) => s.placeId === state.hand?.slotId));
  return (
    <ol
      className={slim ? 'wall slim' : 'wall'}
      aria-label={`Slots of ${task.wall.code}`}
      style={{ gridTemplateColumns: `repeat(${task.wall.columns}, minmax(0, 1fr))` }}
    >
      {task.slots.map((slot, i) => (
        <Slot key={slot.placeId} task={task} state={state} slot={slot} lit={state.hand?.slotId === slot.placeId} off={rowOf(i) !== meant} />
      ))}
    </ol>
  );
}

function Slot({
  task,
  state,
  slot,
  lit,
  off,
}: {
  task: SortTask;
  state: SortState;
  slot: WallSlot;
  lit: boolean;
  /** It hangs in another row than the slot to use. */
  off: boolean;
}) {
  const order = orderAt(task, state, slot);
  const { sorted, left } = order ? progressOf(task, state, order) : { sorted: 0, left: 0 };
  const isWhole = order !== undefined && left === 0;
  const says = order
    ? `${order.code}, ${order.customer}${isWhole ? ', complete' : `, ${left} more to come`}`
    : slot.busy
      ? 'in use on another round'
      : 'empty';
  return (
    <li
      className={classes(isWhole && 'whole', slot.busy && 'others', off && 'off')}
      aria-current={lit ? 'true' : undefined}
      aria-label={`Slot ${slot.number}, ${says}`}
      title={says}
    >
      <b>{slot.number}</b>
      {slot.busy ? (
        <Glyph name="held" size={18} />
      ) : (
        <span>
          <Glyph name={order ? progressGlyph(sorted, sorted + left) : 'empty'} size={18} />
          {order && (isWhole ? 'pack' : left)}
        </span>
      )}
    </li>
  );
}
