import type { PickStop } from '@vectrum/core/scan';
import { plural } from '../../ui/format';
import { PhoneLink, Say } from '../../ui/phone/parts';

/** Who else walks the round, with how many stops each has to go. */
function namesOf(others: readonly PickStop[]): string {
  const byName = new Map<string, number>();
  for (const { by = '' } of others) byName.set(by, (byName.get(by) ?? 0) + 1);
  return [...byName].map(([name, n]) => `${name} has ${plural(n, 'stop', 'stops')} to go`).join(', ');
}

/** A word on colleagues who walk the same round; nobody is sent to where they go. */
export function OthersWalk({ others, onTake }: { others: readonly PickStop[]; onTake: () => void }) {
  if (others.length === 0) return null;
  return (
    <p className="theirs">
      {namesOf(others)}
      <PhoneLink onClick={onTake}>Take all of it</PhoneLink>
    </p>
  );
}

/** Nothing of the round is this person's: it can be shared, or be left to whoever walks it. */
export function NothingMine() {
  return <Say className="text-[18px]">Help, and the further half of what is ahead is yours: no two go to the same bin.</Say>;
}
