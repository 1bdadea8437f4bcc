import { bareHead as norm, englishHead } from './head-words.js';

export interface ColumnField {
  key: string;
  /** How the column is headed in our own files. */
  label: string;
  /** Other heads that people use for it. */
  also?: readonly string[];
}

/**
 * Which field each column of a file most likely holds; null where none fits. Exact heads go first, then what they stand for in
 * German, French and Dutch, then heads that hold a field's name or are held by it, longest name first; a field is given once.
 * O(columns × fields).
 */
export function guessColumns(heads: readonly string[], fields: readonly ColumnField[]): (string | null)[] {
  const guess: (string | null)[] = heads.map(() => null);
  const free = new Set(fields.map((f) => f.key));
  const give = (column: number, key: string) => {
    guess[column] = key;
    free.delete(key);
  };
  const names = fields
    .flatMap((f) => [f.key, f.label, ...(f.also ?? [])].map((n) => ({ key: f.key, name: norm(n) })))
    .sort((a, b) => b.name.length - a.name.length);
  heads.forEach((head, i) => {
    const hit = names.find((n) => n.name === norm(head) && free.has(n.key));
    if (hit) give(i, hit.key);
  });
  heads.forEach((head, i) => {
    const english = guess[i] === null ? englishHead(head) : null;
    const hit = english && names.find((n) => n.name === english && free.has(n.key));
    if (hit) give(i, hit.key);
  });
  heads.forEach((head, i) => {
    const own = englishHead(head) ?? norm(head);
    if (guess[i] !== null || own.length < 3) return;
    const hit = names.find((n) => free.has(n.key) && n.name.length >= 3 && (own.includes(n.name) || n.name.includes(own)));
    if (hit) give(i, hit.key);
  });
  return guess;
}
