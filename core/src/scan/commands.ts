import type { ComeBackCommand } from './come-back.js';
import type { CheckCommand, JudgeCommand } from './inspect.js';
import type { HandOverCommand, LoadCommand, UnloadCommand } from './load-task.js';
import type {
  CloseParcelCommand,
  NoteSeenCommand,
  OpenParcelCommand,
  LeaveOutCommand,
  PackAllCommand,
  PackKitCommand,
  PackCommand,
  ParkCommand,
  RepackCommand,
  SerialOutCommand,
} from './pack-task.js';
import type { AnyMoveCommand } from './move-task.js';
import type { CartCommand, HelpCommand, PickCommand, SetDownCommand, ShortCommand, TakeCommand, ToteCommand } from './pick-task.js';
import type { CloseArrivalCommand, ReceiveCommand, ReceivePalletCommand, ReceiveWholeCommand, TieCommand } from './receive/types.js';
import type { SortCommand, SortMissingCommand } from './sort-task.js';
import type { CountSpotCommand, ReportSpotCommand } from './spot-count.js';
import type { AnyGatherCommand } from './gather.js';
import type { AnyTakeInCommand } from './take-in.js';
import type { StoreCommand } from './store.js';
import type { AnyTallyCommand } from './tally-task.js';
import type { RefusedCommand } from './types.js';

/** Every task of the floor, each with one flow. */
export const TASK_KINDS = [
  'receive',
  'inspect',
  'store',
  'refill',
  'count',
  'tally',
  'move',
  'gather',
  'take-in',
  'pick',
  'sort',
  'pack',
  'load',
  'come-back',
] as const;
export type TaskKind = (typeof TASK_KINDS)[number];

/** Everything that a phone or a packing table can ask for. Commands are data: they are kept on the device until answered. */
export type FloorCommand =
  | ReceiveCommand
  | ReceivePalletCommand
  | ReceiveWholeCommand
  | TieCommand
  | CloseArrivalCommand
  | CheckCommand
  | JudgeCommand
  | StoreCommand
  | CountSpotCommand
  | ReportSpotCommand
  | AnyTallyCommand
  | AnyMoveCommand
  | AnyGatherCommand
  | AnyTakeInCommand
  | TakeCommand
  | HelpCommand
  | CartCommand
  | ToteCommand
  | PickCommand
  | ShortCommand
  | SetDownCommand
  | SortCommand
  | SortMissingCommand
  | PackCommand
  | PackAllCommand
  | PackKitCommand
  | LeaveOutCommand
  | NoteSeenCommand
  | CloseParcelCommand
  | OpenParcelCommand
  | RepackCommand
  | SerialOutCommand
  | ParkCommand
  | LoadCommand
  | UnloadCommand
  | HandOverCommand
  | ComeBackCommand
  | RefusedCommand;
export type FloorCommandKind = FloorCommand['kind'];
