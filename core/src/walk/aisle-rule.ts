/** How a run of aisles is built: "A to H, 12 bays, 4 levels". */
export interface AisleRule {
  /** First and last aisle: one or two letters ("A", "AB") or a whole number ("1"); the last is not before the first. */
  from: string;
  to: string;
  bays: number;
  levels: number;
  /** Levels from the floor up that are open to picking; those above are reserve. */
  pickLevels: number;
  /** Metres of a bay along the aisle. */
  bayM: number;
}

export interface RuledBin {
  code: string;
  aisle: string;
  bay: number;
  level: number;
  /** Metres from the aisle's first end to the middle of the bay. */
  along: number;
  pickable: boolean;
}

/** The most bins that one rule may make. */
export const MOST_BINS = 20_000;

const A = 'A'.charCodeAt(0);
const LETTERS = 26;

function numberOf(name: string): number | null {
  if (/^[1-9]\d{0,3}$/.test(name)) return Number(name);
  if (!/^[A-Z]{1,2}$/.test(name)) return null;
  return [...name].reduce((n, c) => n * LETTERS + c.charCodeAt(0) - A + 1, 0);
}

function nameOf(n: number, letters: boolean): string {
  if (!letters) return String(n);
  const first = Math.floor((n - 1) / LETTERS);
  return (first > 0 ? String.fromCharCode(A + first - 1) : '') + String.fromCharCode(A + ((n - 1) % LETTERS));
}

/** What is wrong with a rule, by field and in words; null where it can be built. */
export function faultOfRule(rule: AisleRule): { field: keyof AisleRule; says: string } | null {
  const [from, to] = [numberOf(rule.from), numberOf(rule.to)];
  if (from === null) return { field: 'from', says: 'The first aisle is one or two letters, or a number' };
  if (to === null) return { field: 'to', says: 'The last aisle is one or two letters, or a number' };
  if (/\d/.test(rule.from) !== /\d/.test(rule.to)) return { field: 'to', says: 'Name the first and the last aisle in the same way' };
  if (to < from) return { field: 'to', says: `${rule.to} comes before ${rule.from}. Turn them round` };
  const whole: [keyof AisleRule, number, number][] = [
    ['bays', rule.bays, 99],
    ['levels', rule.levels, 9],
  ];
  for (const [field, n, most] of whole) {
    if (!Number.isInteger(n) || n < 1 || n > most) return { field, says: `An aisle has 1 to ${most} ${field}` };
  }
  if (!Number.isInteger(rule.pickLevels) || rule.pickLevels < 0 || rule.pickLevels > rule.levels) {
    return { field: 'pickLevels', says: `Of ${rule.levels} levels, 0 to ${rule.levels} are open to picking` };
  }
  if (!(rule.bayM >= 0.2 && rule.bayM <= 20)) return { field: 'bayM', says: 'A bay is 0.2 to 20 metres wide' };
  const bins = (to - from + 1) * rule.bays * rule.levels;
  return bins > MOST_BINS ? { field: 'to', says: `That would be ${bins} bins. Build ${MOST_BINS} at most at once` } : null;
}

/** The bins that a rule makes, aisle by aisle, bay by bay, from the floor up. Throws RangeError for a rule that has a fault. */
export function aisleBins(rule: AisleRule): RuledBin[] {
  const fault = faultOfRule(rule);
  if (fault) throw new RangeError(fault.says);
  const letters = !/\d/.test(rule.from);
  const bins: RuledBin[] = [];
  for (let n = numberOf(rule.from) ?? 1; n <= (numberOf(rule.to) ?? 0); n++) {
    const aisle = nameOf(n, letters);
    for (let bay = 1; bay <= rule.bays; bay++) {
      for (let level = 1; level <= rule.levels; level++) {
        bins.push({
          code: `${aisle}-${String(bay).padStart(2, '0')}-${level}`,
          aisle,
          bay,
          level,
          along: Math.round((bay - 0.5) * rule.bayM * 100) / 100,
          pickable: level <= rule.pickLevels,
        });
      }
    }
  }
  return bins;
}
