/** What tells goods of an item apart, in words: a lot, or the serial number of a piece. '' where nothing does. */
export function lotWords(item: { tracking: string } | undefined, lot: string | null | undefined): string {
  if (!lot) return '';
  return item?.tracking === 'serial' ? `number ${lot}` : `lot ${lot}`;
}

/** The same behind other words: ", lot L26". */
export const commaLot = (item: { tracking: string } | undefined, lot: string | null | undefined): string =>
  lot ? `, ${lotWords(item, lot)}` : '';
