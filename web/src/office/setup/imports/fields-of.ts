import { guessColumns, type ColumnField } from '@vectrum/core/cells';

/**
 * What each column holds once a file is said to be of another kind: what was said stays where the new kind knows it, the rest is
 * guessed by the heads; '' passes a column over.
 */
export function fieldsOf(heads: readonly string[], fields: readonly ColumnField[], said: readonly string[]): string[] {
  const stays = heads.map((_, i) => (fields.some((f) => f.key === said[i]) ? (said[i] ?? '') : ''));
  const rest = fields.filter((f) => !stays.includes(f.key));
  const guessed = guessColumns(
    heads.map((h, i) => (stays[i] ? '' : h)),
    rest,
  );
  return stays.map((s, i) => s || (guessed[i] ?? ''));
}
