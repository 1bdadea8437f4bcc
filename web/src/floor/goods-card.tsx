import { inPacks, packName } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { whole } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { OfEach, Route, RouteNode, TaskCard, ToTake } from '../ui/phone/parts';
import { Picture } from '../ui/picture';

/** What is taken or brought: the goods, how many of them in whole, and a word on them. */
export function GoodsTaken({
  item,
  units,
  of,
  isHeld,
  slim,
}: {
  item: ItemFacts;
  units: number;
  of: string;
  isHeld: boolean;
  /** Room is wanted beneath for the pad. */
  slim: boolean;
}) {
  const counts = inPacks(units, item.packs);
  return (
    <Route>
      <RouteNode last>
        <i />
        <Glyph name={isHeld ? 'half' : 'empty'} />
      </RouteNode>
      <TaskCard here={isHeld}>
        <Picture name={item.picture} size={slim ? 56 : 96} />
        <div>
          <h2>{item.name}</h2>
          <ToTake several={slim || counts.length > 1}>
            {counts.map(({ pack, count }) => (
              <div key={pack.id} className="flex items-end gap-[8px]">
                <b>{whole(count)}</b>
                <span>{packName(pack, count)}</span>
              </div>
            ))}
          </ToTake>
          <OfEach>{of}</OfEach>
        </div>
      </TaskCard>
    </Route>
  );
}
