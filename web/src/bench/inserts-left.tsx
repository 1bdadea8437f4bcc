import { type Codebook, insertsLeft, type PackState, type PackTask } from '@vectrum/core/scan';
import { TextButton } from '../ui/button';
import { Said } from '../ui/page';

/** What goes along and is not in yet: where there is none to hand, it may stay behind. */
export function InsertsLeft({
  task,
  state,
  book,
  onLeaveOut,
}: {
  task: PackTask;
  state: PackState;
  book: Codebook;
  onLeaveOut: () => void;
}) {
  const left = insertsLeft(task, state).flatMap(({ line }) => {
    const itemId = task.lines.find((l) => l.line === line)?.itemId;
    return itemId === undefined ? [] : [book.items[itemId]?.name ?? 'An insert'];
  });
  if (left.length === 0 || state.outOf !== null) return null;
  return (
    <Said>
      {left.length === 1 ? `${left[0]} only goes along` : `${left.length} lines only go along`}
      <TextButton type="button" onClick={onLeaveOut}>
        {left.length === 1 ? 'Leave it out' : 'Leave them out'}
      </TextButton>
    </Said>
  );
}
