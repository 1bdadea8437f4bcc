import type { Dto } from '../../api/client';

/** The pick face of each of the goods once some changes of places are made, one after another. */
export function homesAfter(
  moves: readonly Pick<Dto['SlotMoveDto'], 'sku' | 'from' | 'to' | 'changeSku'>[],
): { sku: string; place: string }[] {
  const homes = new Map<string, string>();
  for (const { sku, from, to, changeSku } of moves) {
    homes.set(sku, to);
    if (changeSku) homes.set(changeSku, from);
  }
  return [...homes].map(([sku, place]) => ({ sku, place }));
}
