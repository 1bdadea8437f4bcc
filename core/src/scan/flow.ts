import type { CommandCode } from '../barcode/index.js';
import type { FloorCommand, TaskKind } from './commands.js';
import { misread, refuse, stay, unknownCode } from './feedback.js';
import { resolve, type Meaning } from './resolve.js';
import type { Codebook, How, PlaceFacts, Refusal, SharedInput, Step } from './types.js';

/** What each flow's state keeps: the commands that are on their way, or whose effect its task does not show yet. */
export interface FlowState<Command extends FloorCommand> {
  readonly pending: readonly Command[];
}

/** The moment at which an input comes. */
export interface Moment<Task, State> {
  task: Task;
  book: Codebook;
  state: State;
  /** The input's id, which the command that it leads to takes over. */
  id: string;
  how: How;
  /** What was scanned; absent where a key was pressed. */
  code?: string;
  /** The device's clock, in milliseconds; 0 where it was not told. Only ever compared with itself. */
  at: number;
}

/** An input of a flow's own, beside those that every flow hears. */
export interface OwnInput {
  kind: string;
  id: string;
  at?: number;
}

type Item = Extract<Meaning, { kind: 'item' }>;
type Inputs<Task, State, Input extends OwnInput, Command> = {
  [K in Input['kind']]: (now: Moment<Task, State>, input: Extract<Input, { kind: K }>) => Step<State, Command>;
};

/** What is a flow's own. All that flows share (settling, undo, unknown codes, goods in hand) is said once, in `flowOf`. */
export interface FlowRules<Task, State extends FlowState<Command>, Input extends OwnInput, Command extends FloorCommand> {
  readonly kind: TaskKind;
  readonly start: State;
  /** The kinds of commands that it leads to. */
  readonly owns: readonly Command['kind'][];
  /** The state with empty hands; what is on its way stays. */
  emptied(state: State): State;
  /**
   * Why the goods in hand can stay there no longer, since the world went on without this phone; null while they can. Goods
   * in hand belong to the one stop, item, lot and place where they were scanned or counted, and to no other.
   */
  strays(now: Moment<Task, State>): Refusal | null;
  /** The codes as this moment knows them; absent where they are the book's. */
  bookNow?(now: Moment<Task, State>): Codebook;
  item(now: Moment<Task, State>, meaning: Item): Step<State, Command>;
  place(now: Moment<Task, State>, place: PlaceFacts): Step<State, Command>;
  pallet?(now: Moment<Task, State>, sscc: string): Step<State, Command>;
  /** A code that the book does not know; undefined where it means nothing here either. */
  unknown?(now: Moment<Task, State>, code: string): Step<State, Command> | undefined;
  /** What command cards do here; a card that does nothing says so. */
  cards: Partial<Record<Exclude<CommandCode, 'undo'>, (now: Moment<Task, State>) => Step<State, Command>>>;
  inputs: Inputs<Task, State, Input, Command>;
}

/** A floor task's rules as one pure function. */
export interface Flow<Task, State extends FlowState<Command>, Input extends OwnInput, Command extends FloorCommand> {
  readonly kind: TaskKind;
  readonly start: State;
  /** Whether a command is one that this flow leads to. */
  owns(command: FloorCommand): command is Command;
  /** The state that a device kept, with the commands that are still on their way; the start where it kept none. */
  revive(kept: object | null, pending: readonly FloorCommand[]): State;
  /** What one input means. Nothing given is changed. O(what the task holds + length of the code). */
  step(task: Task, book: Codebook, state: State, input: SharedInput | Input): Step<State, Command>;
}

/** Makes a flow of its rules. Commands that a step leads to are on their way from then on. */
export function flowOf<Task, State extends FlowState<Command>, Input extends OwnInput, Command extends FloorCommand>(
  rules: FlowRules<Task, State, Input, Command>,
): Flow<Task, State, Input, Command> {
  const owns = (command: FloorCommand): command is Command => rules.owns.some((kind) => kind === command.kind);
  return {
    kind: rules.kind,
    start: rules.start,
    owns,
    revive: (kept, pending) => ({ ...rules.start, ...kept, pending: pending.filter(owns) }),
    step(task, book, given, input) {
      const state = isSettled(input) ? { ...given, pending: given.pending.filter((c) => !input.ids.includes(c.id)) } : given;
      const now: Moment<Task, State> = { task, book, state, id: input.id, how: 'typed', at: input.at ?? 0, ...codeOf(input) };
      const stray = rules.strays(now);
      if (stray) return isClear(input) ? stay(rules.emptied(state)) : refuse(rules.emptied(state), stray, now);
      return onTheirWay(heard(rules, now, input));
    },
  };
}

const isSettled = (input: OwnInput): input is Extract<SharedInput, { kind: 'settled' }> => input.kind === 'settled';
const isClear = (input: OwnInput): input is Extract<SharedInput, { kind: 'clear' }> => input.kind === 'clear';
const isCode = (input: OwnInput): input is Extract<SharedInput, { kind: 'code' }> => input.kind === 'code';

const codeOf = (input: OwnInput) => (isCode(input) ? { how: input.how, code: input.code } : {});

function heard<Task, State extends FlowState<Command>, Input extends OwnInput, Command extends FloorCommand>(
  rules: FlowRules<Task, State, Input, Command>,
  now: Moment<Task, State>,
  input: SharedInput | Input,
): Step<State, Command> {
  if (isSettled(input)) return stay(now.state);
  if (isClear(input)) return stay(rules.emptied(now.state));
  if (isCode(input)) return scanned(rules, now, input.code);
  const own: Input['kind'] = input.kind;
  // An input of another flow's means nothing here.
  const rule = Object.hasOwn(rules.inputs, own) ? rules.inputs[own] : undefined;
  return rule?.(now, input as Extract<Input, { kind: typeof own }>) ?? stay(now.state);
}

function scanned<Task, State extends FlowState<Command>, Input extends OwnInput, Command extends FloorCommand>(
  rules: FlowRules<Task, State, Input, Command>,
  now: Moment<Task, State>,
  code: string,
): Step<State, Command> {
  const meaning = resolve(code, rules.bookNow?.(now) ?? now.book);
  switch (meaning.kind) {
    case 'item':
      return rules.item(now, meaning);
    case 'place':
      return rules.place(now, meaning.place);
    case 'command':
      if (meaning.command === 'undo') return { ...stay<State, Command>(now.state), undo: true };
      return (
        rules.cards[meaning.command]?.(now) ??
        stay(now.state, { band: 'not-this', title: code.trim(), detail: 'This card does nothing here' })
      );
    case 'pallet':
      return rules.pallet?.(now, meaning.sscc) ?? refuse(now.state, unknownCode(meaning.sscc), now);
    case 'misread':
      return refuse(now.state, misread(meaning.code, meaning.fault), now);
    case 'unknown':
      return rules.unknown?.(now, meaning.code) ?? refuse(now.state, unknownCode(meaning.code), now);
  }
}

function onTheirWay<State extends FlowState<Command>, Command extends FloorCommand>(step: Step<State, Command>): Step<State, Command> {
  const made = step.commands.filter((c): c is Command => c.kind !== 'refused');
  return made.length === 0 ? step : { ...step, state: { ...step.state, pending: [...step.state.pending, ...made] } };
}
