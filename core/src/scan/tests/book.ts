import type {
  ComeBackInput,
  GatherInput,
  InspectInput,
  LoadInput,
  MoveInput,
  PackInput,
  PickInput,
  ReceiveInput,
  SortInput,
  SpotInput,
  StoreInput,
  TakeInInput,
  TallyInput,
} from '../index.js';
import type { Codebook, How, ItemFacts, PlaceFacts, SharedInput, Step } from '../types.js';

/** A small house for the tests of the floor flows: two items, a lot-tracked one, bins, totes, a table. */
const jar: ItemFacts = {
  id: 1,
  sku: 'JAR',
  name: 'Jar 454 g',
  picture: 'jar',
  tracking: 'none',
  home: 'A-01-1',
  packs: [
    { id: 12, name: 'tray', plural: 'trays', factor: 48 },
    { id: 11, name: 'jar', plural: 'jars', factor: 1 },
  ],
};
const lid: ItemFacts = {
  id: 2,
  sku: 'LID',
  name: 'Lid, gold',
  picture: 'lid',
  tracking: 'none',
  home: null,
  packs: [{ id: 21, name: 'lid', plural: 'lids', factor: 1 }],
};
const syrup: ItemFacts = {
  id: 3,
  sku: 'SYR',
  name: 'Syrup',
  picture: 'syrup',
  tracking: 'lot-expiry',
  home: 'K-01-1',
  packs: [{ id: 31, name: 'can', plural: 'cans', factor: 1 }],
};

export const scale: ItemFacts = {
  id: 4,
  sku: 'SCALE',
  name: 'Honey scale',
  picture: 'box',
  tracking: 'serial',
  home: 'B-01-1',
  packs: [{ id: 41, name: 'piece', plural: 'pieces', factor: 1 }],
};

const place = (id: number, code: string, kind: string, siteId = 1): PlaceFacts => ({ id, code, kind, siteId });

export const places = {
  dock: place(100, 'DOCK-1', 'dock'),
  binA: place(101, 'A-01-1', 'pick-face'),
  binB: place(102, 'B-01-1', 'pick-face'),
  tote: place(103, 'T-01', 'tote'),
  busy: place(104, 'T-02', 'tote'),
  second: place(108, 'T-03', 'tote'),
  table: place(105, 'TABLE-1', 'packing-table'),
  far: place(106, 'QUAY-DOCK', 'dock', 2),
  cart: place(107, 'CART-1', 'cart'),
};

export const codes = { jar: '9506000134352', tray: '19506000134359', lid: 'LID', syrup: '9506000134369', unknown: '5099999999994' };

export const book: Codebook = {
  today: '2027-03-01',
  codes: {
    '09506000134352': { itemId: 1, packId: 11 },
    '19506000134359': { itemId: 1, packId: 12 },
    JAR: { itemId: 1, packId: 11 },
    LID: { itemId: 2, packId: 21 },
    '09506000134369': { itemId: 3, packId: 31 },
    SYR: { itemId: 3, packId: 31 },
  },
  items: { 1: jar, 2: lid, 3: syrup },
  places: Object.fromEntries(Object.values(places).map((p) => [p.code, p])),
};

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;
export type AnyInput = { at?: number } & WithoutId<
  | SharedInput
  | ComeBackInput
  | InspectInput
  | LoadInput
  | MoveInput
  | PackInput
  | PickInput
  | ReceiveInput
  | SortInput
  | SpotInput
  | StoreInput
  | GatherInput
  | TakeInInput
  | TallyInput
>;

interface Steps<Task, State, Command> {
  step(task: Task, b: Codebook, state: State, input: never): Step<State, Command>;
}

/** A flow over another codebook. */
export const over = <Task, State, Command>(flow: Steps<Task, State, Command>, other: Codebook): Steps<Task, State, Command> => ({
  step: (task, _, state, input) => flow.step(task, other, state, input),
});

/** One input with the id given, through any flow: an input that is not its own means nothing to it. */
export function stepOf<Task, State, Command>(flow: Steps<Task, State, Command>, task: Task, state: State, input: AnyInput, id: string) {
  return flow.step(task, book, state, { ...input, id } as never);
}

/** Runs inputs through a flow, each with the next id, and keeps what came of them. */
export function walk<Task, State, Command>(flow: Steps<Task, State, Command>, task: Task, start: State, ...inputs: AnyInput[]) {
  const steps: Step<State, Command>[] = [];
  let state = start;
  inputs.forEach((input, i) => {
    const step = stepOf(flow, task, state, input, `id-${i + 1}`);
    steps.push(step);
    state = step.state;
  });
  return { state, steps, last: steps.at(-1), commands: steps.flatMap((s) => s.commands) };
}

export const scan = (code: string, how: How = 'scanned') => ({ kind: 'code' as const, code, how });
export const typed = (code: string) => scan(code, 'typed');
export const count = (packId: number, n: number) => ({ kind: 'count' as const, packId, count: n });
export const confirm = { kind: 'confirm' as const };
export const notHere = { kind: 'not-here' as const };
export const clear = { kind: 'clear' as const };
