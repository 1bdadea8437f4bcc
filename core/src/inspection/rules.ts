/** How often deliveries are looked at: each, every so manyth, or until so many in a row have passed. */
export const INSPECTION_KINDS = ['always', 'every', 'until-proven'] as const;
export type InspectionKind = (typeof INSPECTION_KINDS)[number];

/** A rule for an item, for a supplier, or for an item from a supplier. */
export interface InspectionRule {
  id: number;
  itemId: number | null;
  supplierId: number | null;
  kind: InspectionKind;
  /** Which delivery is looked at, or how many passed in a row prove the goods; of no meaning with `always`. */
  n: number;
  checklistId: number | null;
}

/** An earlier delivery of the item, as a rule sees it. */
export interface PastDelivery {
  inspected: boolean;
  /** Whether all of it passed; null where it was not looked at, or still waits. */
  passed: boolean | null;
}

const exactness = (r: InspectionRule) => (r.itemId === null ? 0 : 2) + (r.supplierId === null ? 0 : 1);

/** The rule that holds for goods: the most exact that fits them, an item's before its supplier's. O(rules). */
export function ruleFor(
  rules: readonly InspectionRule[],
  goods: { itemId: number; supplierId: number | null },
): InspectionRule | undefined {
  return rules
    .filter((r) => (r.itemId ?? goods.itemId) === goods.itemId && (r.supplierId === null || r.supplierId === goods.supplierId))
    .reduce<InspectionRule | undefined>((best, r) => (!best || exactness(r) > exactness(best) ? r : best), undefined);
}

/**
 * Why a delivery must be looked at before it is stock, in words; null where it need not be. `past` are the earlier
 * deliveries that the rule covers, newest first. A delivery that failed makes the next one be looked at whatever the rule.
 */
export function whyInspect(rule: Pick<InspectionRule, 'kind' | 'n'>, past: readonly PastDelivery[]): string | null {
  if (rule.kind === 'always') return 'every delivery is looked at';
  const judged = past.filter((d) => d.passed !== null);
  if (judged[0]?.passed === false) return 'the last one looked at did not pass';
  return rule.kind === 'every' ? everyNth(rule.n, past) : untilProven(rule.n, judged);
}

function everyNth(n: number, past: readonly PastDelivery[]): string | null {
  const since = past.findIndex((d) => d.inspected);
  if (since < 0) return past.length === 0 ? 'the first delivery' : 'none was looked at yet';
  return since + 1 >= n ? `every ${ordinal(n)} delivery is looked at` : null;
}

function untilProven(n: number, judged: readonly PastDelivery[]): string | null {
  const failed = judged.findIndex((d) => d.passed === false);
  const passed = failed < 0 ? judged.length : failed;
  return passed >= n ? null : `${passed} of ${n} in a row have passed`;
}

/** 3rd, 11th, 22nd. */
export function ordinal(n: number): string {
  const teens = n % 100 >= 11 && n % 100 <= 13;
  return `${n}${(!teens && { 1: 'st', 2: 'nd', 3: 'rd' }[n % 10]) || 'th'}`;
}
