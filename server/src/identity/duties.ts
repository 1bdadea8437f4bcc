/** Everything a route can ask for. `signed-in` is any person; `public` needs nobody. */
export type Right =
  'public' | 'signed-in' | 'buy' | 'order-desk' | 'receive' | 'store' | 'release' | 'pick' | 'pack' | 'dispatch' | 'items' | 'set-up';

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
  owner: ['buy', 'order-desk', 'receive', 'store', 'release', 'pick', 'pack', 'dispatch', 'items', 'set-up'],
  buyer: ['buy', 'items'],
  'order-desk': ['order-desk', 'release'],
  receiver: ['receive', 'store'],
  storer: ['store'],
  picker: ['pick', 'store'],
  packer: ['pack', 'dispatch'],
  counter: [],
  reviewer: ['release', 'items'],
  bookkeeper: [],
  'set-up': ['items', 'set-up'],
};

export function rightsOf(duties: readonly Duty[]): Set<string> {
  return new Set(duties.flatMap((duty) => DUTY_RIGHTS[duty] ?? []));
}
