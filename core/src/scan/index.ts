export type * from './types.js';
export { codeKey, resolve, type Meaning } from './resolve.js';
export * from './receive/index.js';
export {
  checkStore,
  goodsKey,
  standing,
  startStore,
  store,
  waitingGoods,
  whyThere,
  zoneRefusal,
  type StandingGoods,
  type StoreCommand,
  type StoreState,
  type StoreTask,
} from './store.js';
export {
  checkPick,
  checkSetDown,
  checkTote,
  currentStop,
  currentTote,
  pick,
  startPick,
  wantedAt,
  type PickCommand,
  type PickState,
  type PickStop,
  type PickTask,
  type SetDownCommand,
  type ShortCommand,
} from './pick.js';
export { checkPack, openLine, pack, startPack, toPack, type PackCommand, type PackLine, type PackState, type PackTask } from './pack.js';
