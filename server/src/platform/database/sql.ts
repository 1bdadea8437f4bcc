const WORD = /^[a-z][a-z -]*$/;

/**
 * A list of known words for an IN clause, such as the states of a group or the kinds of places for a use. They come from
 * constants of the core, never from a request; a word that is none throws.
 */
export function sqlList(words: readonly string[]): string {
  if (words.length === 0) return '(NULL)';
  for (const word of words) if (!WORD.test(word)) throw new RangeError(`Not a word for SQL: ${word}`);
  return `(${words.map((w) => `'${w}'`).join(',')})`;
}
