import { spell } from '../quantity/index.js';
import { sentence } from './feedback.js';
import { type PackParcel, unitsIn } from './pack-task.js';
import type { ItemFacts, Refusal } from './types.js';

export function checkPack(order: string, item: ItemFacts | undefined, units: number, wanted: number): Refusal | null {
  if (!item) return { band: 'not-this', title: 'Not on this order', detail: `${order} has no such line` };
  if (!Number.isSafeInteger(units) || units <= 0)
    return { band: 'too-many', title: 'Nothing counted', detail: 'Scan what goes into the box' };
  if (units > wanted) {
    const back = item.home ? ` Put it back in ${item.home}` : ' Set it apart';
    return {
      band: 'too-many',
      title: `${sentence(spell(units - wanted, item.packs))} over`,
      detail: `${order} wants ${wanted === 0 ? 'no more' : spell(wanted, item.packs)} of ${item.name}.${back}`,
    };
  }
  return null;
}

/**
 * The rule for closing a parcel: something is in it, the note is read, and what is still to be packed has another parcel that
 * is begun, or is said to get one (`more`). `left` is what is still to be proved, in base units.
 */
export function checkClose(parcels: readonly PackParcel[], number: number, left: number, noteRead: boolean, more = false): Refusal | null {
  const parcel = parcels.find((p) => p.number === number);
  if (parcel && !parcel.open) return { band: 'not-this', title: parcel.code, detail: 'It is closed already' };
  if (left > 0 && !more && !parcels.some((p) => p.open && p.number !== number))
    return {
      band: 'not-this',
      title: `Parcel ${number}`,
      detail: `${left} ${left === 1 ? 'piece is' : 'pieces are'} still to scan into the parcel`,
    };
  if (!parcel || parcel.contents.every((c) => c.units <= 0))
    return { band: 'not-this', title: `Parcel ${number}`, detail: 'Nothing is in it yet' };
  if (!noteRead)
    return { band: 'not-this', title: 'Note to answer', detail: 'Read the customer’s note and say so before the label is printed' };
  return null;
}

/**
 * The rule for taking goods out of one parcel into another: both are open, and so many of them are in the first. `to` is undefined where
 * it is yet to be begun.
 */
export function checkRepack(
  order: string,
  from: PackParcel | undefined,
  to: PackParcel | undefined,
  line: number,
  units: number,
): Refusal | null {
  const closed = [from, to].find((p) => p && !p.open);
  if (closed) return { band: 'not-this', title: closed.code, detail: 'It is closed. Open it first' };
  if (!from || from.number === to?.number) return { band: 'not-this', title: order, detail: 'Choose the parcel that goods come out of' };
  if (!Number.isSafeInteger(units) || units <= 0)
    return { band: 'too-many', title: 'Nothing counted', detail: 'Scan what comes out of the box' };
  const there = unitsIn(from, line);
  if (units > there)
    return { band: 'too-many', title: from.code, detail: there === 0 ? 'None of it is in there' : `Only ${there} of it are in there` };
  return null;
}

/** More serial numbers than pieces in a parcel: whoever took one out scans its number before the parcel is closed. */
export const numberToScan = (over: number): Refusal => ({
  band: 'not-this',
  title: over === 1 ? 'Which piece came out?' : `Which ${over} pieces came out?`,
  detail: 'Scan the serial number of what was taken out, so that the rest stays true',
});
