export interface Completeness {
  barcode: boolean;
  cost: boolean;
  size: boolean;
}

/** What an item still lacks before every part of the work can rely on it, in words. */
export function lacking(has: Completeness): string[] {
  return [...(has.barcode ? [] : ['barcode']), ...(has.cost ? [] : ['cost']), ...(has.size ? [] : ['size or weight'])];
}
