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
  WAITING,
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
export {
  answersOf,
  checkVerdict,
  goodsInHand,
  inspect,
  inspectKey,
  startInspect,
  unjudged,
  VERDICTS,
  type CheckCommand,
  type GoodsToInspect,
  type InspectCommand,
  type InspectState,
  type InspectTask,
  type JudgeCommand,
  type Verdict,
} from './inspect.js';
