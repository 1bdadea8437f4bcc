/**
 * A lot for goods whose label names none: the day on which they came, and the paper that they came with, so that what came
 * first can be told and goes out first. At most 20 characters.
 */
export function proposedLot(today: string, document: string): string {
  const paper = document.replace(/[^0-9A-Z]/gi, '').slice(-11);
  return `${today.replaceAll('-', '')}${paper === '' ? '' : `-${paper}`}`;
}
