import { SEPARATOR } from '@vectrum/core/barcode';
import type { ScannerProfile } from './profile';
import { nameOf, type PressedKey } from './wedge-reader';

/**
 * What the test card holds: a number, a lot with letters that keyboards disagree about and a hyphen, a separator that must not
 * be lost, and a date that the lot would swallow if it were.
 */
export const CARD = { gtin: '09521234543213', lot: 'aZ-7y', date: '291231' } as const;
/** The card as the drawing of a barcode wants it. */
export const CARD_TEXT = `(01)${CARD.gtin}(10)${CARD.lot}(17)${CARD.date}`;

export interface Remark {
  good: boolean;
  says: string;
  /** What to do about it, where it is not well. */
  todo?: string;
}

export interface CardReading {
  /** What to keep of this scanner; undefined where it was not the card, or must be set first. */
  profile?: ScannerProfile;
  remarks: readonly Remark[];
}

const isKey = (name: string | undefined) => (name ?? '').length > 1;

/** Stands for a key without a character; its name is kept beside. */
const KEY = '\uE000';
const KEYBOARD = 'Scan the code in its handbook that sets it to the keyboard of this device';

/** What a scanner sent when it read the test card: every part of it, with what to do about what is not well. */
export function readTestCard(keys: readonly PressedKey[]): CardReading {
  const told = keys.filter((k) => !['Shift', 'Control', 'Alt', 'AltGraph', 'Meta', 'CapsLock'].includes(k.key));
  const signs = told.map((k) => (k.key.length === 1 && (!k.ctrl || k.alt) && !(k.alt && !k.ctrl) ? k.key : KEY)).join('');
  const names = (from: number, to: number) => told.slice(from, to).map((k, i) => (signs[from + i] === KEY ? nameOf(k) : k.key));
  const begins = signs.indexOf(`01${CARD.gtin}10`);
  if (begins < 0) return { remarks: [notTheCard(signs)] };
  const lotAt = begins + CARD.gtin.length + 4;
  const lot = signs.slice(lotAt, lotAt + CARD.lot.length);
  const dateAt = signs.indexOf(`17${CARD.date}`, lotAt + CARD.lot.length);
  const letters = lettersRemark(lot);
  if (dateAt < 0) return { remarks: [letters, { good: false, says: 'The end of the card did not come', todo: 'Scan it again' }] };

  const identifier = /\][A-Za-z]\d$/.exec(signs.slice(0, begins))?.[0] ?? '';
  const prefix = signs.slice(0, begins - identifier.length).replaceAll(KEY, '');
  const separator = names(lotAt + CARD.lot.length, dateAt);
  const behind = names(dateAt + 8, signs.length);
  const ends = behind.at(-1) === 'Enter' || behind.at(-1) === 'Tab' ? behind.at(-1) : undefined;
  const suffix = behind.filter((k) => k.length === 1).join('');
  const gapMs = Math.ceil(Math.max(0, ...told.map((k, i) => k.at - (told[i - 1] ?? k).at)));
  const apart = separatorRemark(separator);
  const remarks = [
    { good: true, says: 'The number came whole' },
    letters,
    apart,
    identifier
      ? { good: true, says: `It names the kind of barcode first: ${identifier}` }
      : { good: true, says: 'It sends the code alone, without its kind' },
    ...(prefix ? [{ good: true, says: `It sends ${prefix} before each code. That is taken off here` }] : []),
    ...(suffix ? [{ good: true, says: `It sends ${suffix} behind each code. That is taken off here` }] : []),
    ends
      ? { good: true, says: `It ends with ${ends}` }
      : {
          good: true,
          says: 'It sends no Enter: a code counts a moment after its last sign',
          todo: 'Set it to end with Enter, and it is quicker',
        },
    paceRemark(gapMs),
  ];
  const isOneKey = separator.length === 1 && isKey(separator[0]);
  const profile: ScannerProfile = {
    separators: isOneKey ? separator : [],
    prefix,
    suffix,
    gapMs: Math.min(200, Math.ceil(gapMs * 1.5)),
    separatorsSeen: apart.good,
  };
  return letters.good ? { profile, remarks } : { remarks };
}

function notTheCard(signs: string): Remark {
  const digits = signs.replace(/\D/g, '').length;
  if (digits < signs.length / 3 && signs.length > 20)
    return { good: false, says: 'The figures came as other signs: the scanner types for another keyboard', todo: KEYBOARD };
  return {
    good: false,
    says: `That was not the test card: ${signs.replaceAll(KEY, '') || 'nothing'} came`,
    todo: 'Scan the card that is shown here',
  };
}

function lettersRemark(lot: string): Remark {
  if (lot === CARD.lot) return { good: true, says: 'Letters and hyphen came as they are' };
  const swapped = [...CARD.lot].map((c) => (c === c.toLowerCase() ? c.toUpperCase() : c.toLowerCase())).join('');
  if (lot === swapped || lot === CARD.lot.toUpperCase() || lot === CARD.lot.toLowerCase())
    return {
      good: false,
      says: `Capitals and small letters came wrong: ${lot}`,
      todo: 'Turn Caps Lock off, or set the scanner to leave letters as they are',
    };
  return { good: false, says: `${CARD.lot} came as ${lot}: the scanner types for another keyboard`, todo: KEYBOARD };
}

function separatorRemark(separator: readonly string[]): Remark {
  const todo = 'Set it to send GS (FNC1) as Ctrl+], F8 or {GS}. Until then codes in which it is missing are refused, not guessed';
  if (separator.length === 0) return { good: false, says: 'It sends no separator between lot and date', todo };
  const sent = separator.join('');
  const known = /^(\{GS\}|<GS>|\[GS\]|\(GS\)|[{<[]FNC1[\]>}]|␝|\^\]|\\x1d|\\u001d|\\035|\||~)$/i.test(sent);
  if (known || (separator.length === 1 && (isKey(separator[0]) || sent === SEPARATOR)))
    return { good: true, says: `It sends ${sent === SEPARATOR ? 'the separator itself' : sent} for the separator` };
  const isNumbered = /^(Alt\+\d)+$/.test(sent) && /^0*29$/.test(sent.replace(/\D/g, ''));
  if (isNumbered) return { good: true, says: 'It sends the separator by its number' };
  return { good: false, says: `It sends ${sent} for the separator, which could be part of a code`, todo };
}

const paceRemark = (gapMs: number): Remark => ({
  good: true,
  says:
    gapMs <= 45
      ? `It is quick: at most ${gapMs} ms between two signs`
      : `It is slow: up to ${gapMs} ms between two signs. It is waited for here`,
});
