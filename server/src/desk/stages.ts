import type { ActivityKind } from '../activity/index.js';

export type Stage = 'inbound' | 'shelves' | 'orders' | 'picking' | 'packing' | 'dispatch';

/** The acts that are the work of each stage. */
export const WORK: Readonly<Record<Stage, readonly ActivityKind[]>> = {
  inbound: ['receive', 'arrival', 'check', 'judge'],
  shelves: ['store', 'count'],
  orders: ['release', 'note'],
  picking: ['take', 'help', 'cart', 'tote', 'pick', 'short', 'set-down', 'sort', 'sort-missing'],
  packing: ['pack', 'leave-out', 'packed'],
  dispatch: ['load', 'hand-over'],
};
export const STAGES = Object.keys(WORK) as Stage[];
export const isStage = (name: string): name is Stage => Object.hasOwn(WORK, name);
