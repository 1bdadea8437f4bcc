import type { SiteId } from '../ids/index.js';
import { isFor } from '../places/index.js';
import { spell } from '../quantity/index.js';
import { sentence } from './feedback.js';
import type { PickStop, PickTask } from './pick-task.js';
import type { ItemFacts, PlaceFacts, Refusal } from './types.js';

/** The rule for taking goods from a stop into a tote, on the phone and on the server alike. */
export function checkPick(
  stop: Pick<PickStop, 'placeCode'> | undefined,
  item: ItemFacts | undefined,
  units: number,
  wanted: number,
): Refusal | null {
  if (!stop || !item) return { band: 'not-this', title: 'Not on this round', detail: 'Nothing of this is wanted here' };
  if (!Number.isSafeInteger(units) || units <= 0) {
    return { band: 'too-many', title: 'Nothing counted', detail: `Scan the ${item.name} before the tote` };
  }
  if (units > wanted) {
    return {
      band: 'too-many',
      title: `${sentence(spell(units - wanted, item.packs))} over`,
      detail: `${wanted > 0 ? `Wanted: ${spell(wanted, item.packs)}` : 'No more wanted'}. Put it back in ${stop.placeCode}`,
    };
  }
  return null;
}

/** The rule for the tote: one that no other round is using. */
export function checkTote(task: Pick<PickTask, 'siteId' | 'busyToteIds'>, place: PlaceFacts): Refusal | null {
  if (!isFor(place.kind, 'collect')) return { band: 'not-this', title: place.code, detail: 'Not a tote. Scan the code on the tote' };
  if (place.siteId !== task.siteId) return { band: 'not-this', title: place.code, detail: 'This tote belongs to another site' };
  if (task.busyToteIds.includes(place.id)) {
    return { band: 'not-this', title: `Tote ${place.code}`, detail: 'In use on another order. Take an empty one' };
  }
  return null;
}

/** The rule for setting finished totes down: nothing left to pick, at a packing table of this site; what is pooled, at a sorting wall. */
export function checkSetDown(
  { siteId, pooled = false }: { siteId: SiteId; pooled?: boolean },
  place: PlaceFacts | undefined,
  open: number,
): Refusal | null {
  const where = pooled ? 'sorting wall' : 'packing table';
  if (!place) return { band: 'unknown', title: 'No such place', detail: `Scan the label of a ${where}` };
  if (!isFor(place.kind, pooled ? 'sort' : 'set-down') || place.siteId !== siteId) {
    const detail = pooled
      ? 'Its orders are not sorted yet. Set it down at a sorting wall of this site'
      : 'Set totes down at a packing table of this site';
    return { band: 'not-this', title: place.code, detail };
  }
  if (open > 0) {
    return { band: 'not-this', title: place.code, detail: `${open} ${open === 1 ? 'stop' : 'stops'} to go before anything is set down` };
  }
  return null;
}
