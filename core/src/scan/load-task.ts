import type { SiteId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { How, Refusal } from './types.js';

/** A closed parcel that stands in a lane, or waits for its label there. */
export interface LoadParcel {
  code: string;
  order: string;
  customer: string;
  tracking: string | null;
  /** It has its label, and may go. */
  labelled: boolean;
  /** Why its order must stay; null where it may go. */
  held: string | null;
  loaded: boolean;
  /** The van that it is meant for, in ISO; null where the carrier has no set departures. */
  leavesAt: string | null;
  /** The van that it was promised to catch has gone without it. */
  missed: boolean;
}

/** What waits in one carrier's lane at one site, and the van that is loaded. */
export interface LoadTask {
  siteId: SiteId;
  carrier: string;
  carrierName: string;
  lane: string;
  /** The van at the door, in ISO; null where the carrier has no set departures. */
  van: string | null;
  parcels: readonly LoadParcel[];
  /** Parcels in the other lanes of the site, so that a phone can say where one belongs. */
  elsewhere: readonly { code: string; tracking: string | null; carrierName: string; lane: string }[];
}

/** Parcels onto the van. */
export interface LoadCommand {
  kind: 'load';
  id: string;
  siteId: SiteId;
  carrier: string;
  parcels: string[];
  /** They are meant for a later van, and are taken along all the same. */
  early: boolean;
  how: How;
}

/** A parcel off the van again, before it has left. */
export interface UnloadCommand {
  kind: 'unload';
  id: string;
  siteId: SiteId;
  carrier: string;
  parcel: string;
}

/** The driver takes these parcels. */
export interface HandOverCommand {
  kind: 'hand-over';
  id: string;
  siteId: SiteId;
  carrier: string;
  parcels: string[];
  driver: string;
  /** The signature as path data in a field of 600 by 200; null where nobody signed. */
  signature: string | null;
}

export type LoadCommands = LoadCommand | UnloadCommand | HandOverCommand;

export interface LoadState extends FlowState<LoadCommands> {
  /** A parcel of a later van that was scanned: scanned once more, it is taken along. */
  early: string | null;
}

export type LoadInput =
  /** All that is meant for this van, or has missed an earlier one. */
  | { kind: 'all'; id: string }
  | { kind: 'take-along'; id: string }
  | { kind: 'off'; id: string; parcel: string }
  | { kind: 'hand-over'; id: string; driver: string; signature: string | null };

export const startLoad: LoadState = { early: null, pending: [] };

/** The parcels with what this device has posted and not yet heard back about. O(parcels × what is on its way). */
export function laneNow(task: LoadTask, { pending }: Pick<LoadState, 'pending'>): LoadParcel[] {
  return task.parcels.flatMap((parcel) => {
    let { loaded } = parcel;
    for (const command of pending) {
      if (command.kind === 'unload') loaded = loaded && command.parcel !== parcel.code;
      else if (!command.parcels.includes(parcel.code)) continue;
      else if (command.kind === 'hand-over') return [];
      else loaded = true;
    }
    return [{ ...parcel, loaded }];
  });
}

/** Whether a parcel is meant for a van that leaves after the one at the door. Both in ISO. */
export const isEarly = (leavesAt: string | null, van: string | null): boolean =>
  leavesAt !== null && van !== null && Date.parse(leavesAt) > Date.parse(van);

/** What goes with the van at the door when all of it is loaded: neither what must stay, nor what a later van takes. */
export const forThisVan = (task: LoadTask, state: Pick<LoadState, 'pending'>): LoadParcel[] =>
  laneNow(task, state).filter((p) => !p.loaded && p.labelled && p.held === null && !isEarly(p.leavesAt, task.van));

/** Why a parcel of the lane cannot go onto the van; null where it can. The same on the phone and on the server. */
export function checkLoad(parcel: Pick<LoadParcel, 'code' | 'order' | 'labelled' | 'held' | 'loaded'>): Refusal | null {
  const no = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });
  if (parcel.held !== null) return no(parcel.code, `${parcel.order} is held: ${parcel.held}. Leave it here`);
  if (!parcel.labelled) return no(parcel.code, 'It has no label yet. Leave it here until it has one');
  if (parcel.loaded) return { band: 'too-many', title: parcel.code, detail: 'It is on the van already' };
  return null;
}
