/** How a count rule's nearest level is found in SQL: the item's own, its class's, the company's. */
export const ruleJoins = (item: string) =>
  `LEFT JOIN count_rule ri ON ri.item_id = ${item}.id LEFT JOIN count_rule rc ON rc.item_id IS NULL AND rc.class = ${item}.class LEFT JOIN count_rule rh ON rh.item_id IS NULL AND rh.class IS NULL`;

export const LIMITS = {
  /** Days between counts: the nearest level that gives any. */
  interval: 'COALESCE(ri.interval_days, rc.interval_days, rh.interval_days)',
} as const;
