/** What a spreadsheet program would take for the beginning of a formula, full-width forms included. */
const FORMULA = /^'*[=+\-@\t\r\n＝＋－＠]/;

/**
 * Text that a spreadsheet shows and never computes: what begins like a formula gets an apostrophe in front. A plain
 * number keeps its sign, since it computes nothing.
 */
export function harmless(text: string): string {
  return FORMULA.test(text) && !/^-?\d+(\.\d+)?$/.test(text) ? `'${text}` : text;
}

/** The text behind `harmless`: `plain(harmless(t)) === t` for every text. */
export function plain(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell;
}
