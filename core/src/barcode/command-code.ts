/** What a printed command card can say, for hands that are on the goods. */
export type CommandCode =
  | 'confirm'
  | 'undo'
  | 'not-here'
  | 'damaged'
  | 'apart'
  | 'take'
  | 'label'
  | 'weigh'
  | 'service'
  | 'parcel'
  | 'open'
  | 'park'
  | 'all'
  | 'leave-out';

const CARDS: Readonly<Record<string, CommandCode>> = {
  'VX-CONFIRM': 'confirm',
  'VX-UNDO': 'undo',
  'VX-NOT-HERE': 'not-here',
  'VX-DAMAGED': 'damaged',
  'VX-APART': 'apart',
  'VX-TAKE': 'take',
  'VX-LABEL': 'label',
  'VX-WEIGH': 'weigh',
  'VX-SERVICE': 'service',
  'VX-PARCEL': 'parcel',
  'VX-OPEN': 'open',
  'VX-PARK': 'park',
  'VX-ALL': 'all',
  'VX-LEAVE-OUT': 'leave-out',
};

/** The command of a scanned card, or undefined where the code is none. */
export function commandOf(code: string): CommandCode | undefined {
  const key = normalCode(code);
  return Object.hasOwn(CARDS, key) ? CARDS[key] : undefined;
}

/** The box of a scanned box label ("VX-BOX-B2"), or undefined where the code is none. */
export function boxOf(code: string): string | undefined {
  return /^VX-BOX-([A-Z0-9-]{1,12})$/.exec(normalCode(code))?.[1];
}

/**
 * The form in which codes are kept and compared: trimmed, symbology identifier dropped, letters
 * in capitals. Element strings are left for `readGs1`.
 */
export function normalCode(code: string): string {
  return code
    .trim()
    .replace(/^\][A-Za-z][0-9A-Za-z]/, '')
    .toUpperCase();
}
