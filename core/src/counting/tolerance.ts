import { dividedBy, micro, type Micro, moneyText, times } from '../money/index.js';
import { type PackUnit, spell } from '../quantity/index.js';

/** How far a count may be off before somebody has to look at it. What is null does not bind. */
export interface Tolerance {
  /** Base units. */
  units: number | null;
  /** Decimal text in the home currency. */
  value: string | null;
  /** Of the units that should be there. */
  unitsPercent: number | null;
  /** Of what all that was counted with it should be worth. */
  valuePercent: number | null;
}

/** What an item says, its class and the company; the nearest that says anything holds alone. */
export interface ToleranceLevels {
  item: Tolerance | null;
  class: Tolerance | null;
  company: Tolerance | null;
}
export type ToleranceLevel = keyof ToleranceLevels;

export interface CountedLine {
  counted: number;
  expected: number;
  /** Decimal text; null where nobody knows. */
  unitCost: string | null;
  packs: readonly PackUnit[];
  /** The class of the item, for the sentence. */
  className: string;
}

export interface Judgement {
  isWithin: boolean;
  /** The level that was asked; null where none says anything, or nothing is off. */
  level: ToleranceLevel | null;
  /** One sentence: which limit held or broke, and why. */
  says: string;
}

const sets = (t: Tolerance | null): t is Tolerance =>
  t !== null && (t.units !== null || t.value !== null || t.unitsPercent !== null || t.valuePercent !== null);

const LEVELS: readonly ToleranceLevel[] = ['item', 'class', 'company'];

const size = (n: Micro): Micro => (n < 0n ? -n : n);

/**
 * Whether a count may be believed as it is. It must be within every limit that the nearest level sets; where no level sets any,
 * whatever is off waits for somebody. `wholeValue`: what all that was counted with it should be worth, in millionths.
 */
export function judge(line: CountedLine, levels: ToleranceLevels, wholeValue: Micro, currency = 'GBP'): Judgement {
  const off = line.counted - line.expected;
  if (off === 0) return { isWithin: true, level: null, says: 'As the books say' };
  const worth = line.unitCost === null ? null : size(times(micro(line.unitCost), off));
  const what = `${spell(Math.abs(off), line.packs)} ${off < 0 ? 'fewer' : 'more'}${worth === null ? '' : `, worth ${moneyText(worth, currency)}`}`;
  const level = LEVELS.find((l) => sets(levels[l]));
  const limits = level && levels[level];
  if (!level || !limits) return { isWithin: false, level: null, says: `${what}: no tolerance is set, so somebody has to look` };
  const by =
    level === 'item' ? 'the item' : level === 'class' ? (line.className ? `the class ${line.className}` : 'its class') : 'the company';
  const tried = tries(line, limits, off, worth, wholeValue, currency);
  const broken = tried.filter((t) => !t.holds);
  const named = (broken.length > 0 ? broken : tried).map((t) => t.says).join(' and ');
  return { isWithin: broken.length === 0, level, says: `${what}: ${broken.length > 0 ? 'beyond' : 'within'} ${named} that ${by} allows` };
}

interface Tried {
  holds: boolean;
  says: string;
}

function tries(line: CountedLine, limits: Tolerance, off: number, worth: Micro | null, wholeValue: Micro, currency: string): Tried[] {
  const units = Math.abs(off);
  const tried: Tried[] = [];
  if (limits.units !== null) tried.push({ holds: units <= limits.units, says: `the ${spell(limits.units, line.packs)}` });
  // What nobody knows the worth of is looked at.
  if (limits.value !== null)
    tried.push({ holds: worth !== null && worth <= micro(limits.value), says: `the ${moneyText(micro(limits.value), currency)}` });
  if (limits.unitsPercent !== null)
    tried.push({
      holds: units * 100 <= limits.unitsPercent * Math.max(0, line.expected),
      says: `the ${limits.unitsPercent} per cent of ${spell(Math.max(0, line.expected), line.packs)}`,
    });
  if (limits.valuePercent !== null)
    tried.push({
      holds: worth !== null && worth * 1000n <= BigInt(Math.round(limits.valuePercent * 10)) * size(wholeValue),
      says: `the ${limits.valuePercent} per cent of ${moneyText(dividedBy(wholeValue, 1), currency)} counted`,
    });
  return tried;
}

/** Lines within tolerance ÷ lines, in per cent with one place; null where nothing was counted. */
export const accuracyOf = (within: number, lines: number): number | null => (lines === 0 ? null : Math.round((within / lines) * 1000) / 10);
