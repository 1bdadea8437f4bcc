/** Everything a route can ask for. `signed-in` is any person; `public` needs nobody. */
export type Right =
  | 'public'
  | 'signed-in'
  | 'buy'
  | 'order-desk'
  | 'receive'
  | 'take-in'
  | 'take-whole'
  | 'inspect'
  | 'store'
  | 'count'
  | 'settle-counts'
  | 'release'
  | 'pick'
  | 'pack'
  | 'dispatch'
  | 'items'
  | 'bills'
  | 'invoices'
  | 'settle-returns'
  | 'set-up';

export const DUTIES = [
  'owner',
  'buyer',
  'order-desk',
  'receiver',
  'storer',
  'picker',
  'packer',
  'counter',
  'reviewer',
  'bookkeeper',
  'set-up',
] as const;
export type Duty = (typeof DUTIES)[number];

/** What each duty lets a person do. Deciding what is picked and picking are apart. */
export const DUTY_RIGHTS: Readonly<Record<Duty, readonly Right[]>> = {
  owner: [
    'buy',
    'order-desk',
    'receive',
    'take-in',
    'take-whole',
    'inspect',
    'store',
    'count',
    'settle-counts',
    'release',
    'pick',
    'pack',
    'dispatch',
    'items',
    'bills',
    'invoices',
    'settle-returns',
    'set-up',
  ],
  buyer: ['buy', 'items'],
  'order-desk': ['order-desk', 'release', 'settle-returns'],
  receiver: ['receive', 'inspect', 'store'],
  storer: ['store', 'count'],
  picker: ['pick', 'store', 'count'],
  packer: ['pack', 'dispatch'],
  counter: ['count'],
  reviewer: ['release', 'inspect', 'settle-counts', 'items'],
  bookkeeper: ['bills', 'invoices'],
  'set-up': ['items', 'set-up'],
};

/** The rights that a duty can be given, with what each allows. */
export const RIGHTS: Readonly<Record<Exclude<Right, 'public' | 'signed-in'>, string>> = {
  buy: 'Raise purchase orders, keep suppliers',
  'order-desk': 'Change and clear orders, keep customers',
  receive: 'Book goods in, tie barcodes',
  'take-in': 'Take in more than ordered, goods too old, goods without an order',
  'take-whole': 'Book in a whole delivery as it stands on the paper, a few lines of it counted',
  inspect: 'Look at goods that came in, and pass or reject them',
  store: 'Put away and move goods',
  count: 'Count bins',
  'settle-counts': 'Decide what the books say after a count',
  release: 'Decide what is picked',
  pick: 'Pick',
  pack: 'Pack',
  dispatch: 'Hand over to carriers',
  items: 'Keep items',
  bills: 'Enter bills, and settle what differs',
  invoices: 'Invoice customers, note what they pay, export the journal',
  'settle-returns': 'Decide what customers get for what they send back',
  'set-up': 'Set up places, people, devices and the company',
};

/** A duty or right as people write it. */
export const setName = (name: string): string => name.replaceAll('-', ' ');

/** Which rights each duty has: as it was adjusted, otherwise as it came. */
export type DutyMatrix = Readonly<Partial<Record<Duty, readonly string[]>>>;

export function rightsOf(duties: readonly Duty[], matrix: DutyMatrix = {}): Set<string> {
  return new Set(duties.flatMap((duty) => matrix[duty] ?? DUTY_RIGHTS[duty] ?? []));
}
