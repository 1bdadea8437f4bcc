/** What a document holds in a few words: "Jar 454 g, round, and 3 more"; empty for one that holds nothing. O(1). */
export function holdsWords(names: readonly string[]): string {
  const [first, ...rest] = names;
  if (first === undefined) return '';
  return rest.length === 0 ? first : `${first}, and ${rest.length} more`;
}
