const NAMED = /\{([A-Za-z]*)\}/g;

/**
 * A letter with its values in place. A paragraph whose values are all empty is left out whole, with the words around them: nobody reads
 * "Not in it:" over nothing. Values are taken as they are: braces within them stay. O(length).
 */
export function fill(template: string, values: Readonly<Record<string, string>>): string {
  return template
    .replaceAll('\r\n', '\n')
    .split(/\n{2,}/)
    .filter((paragraph) => {
      const named = [...paragraph.matchAll(NAMED)].map(([, name = '']) => values[name] ?? '');
      return named.length === 0 || named.some((value) => value.trim() !== '');
    })
    .map((paragraph) => paragraph.replaceAll(NAMED, (_, name: string) => values[name] ?? '').trimEnd())
    .filter((paragraph) => paragraph !== '')
    .join('\n\n');
}

/** What is wrong with words for a letter: a name in braces that it does not know, or a brace that is left open; null where nothing is. */
export function templateFault(template: string, known: readonly string[]): string | null {
  for (const [whole, name = ''] of template.matchAll(NAMED))
    if (!known.includes(name)) return `${whole} is not known here. There are ${known.map((k) => `{${k}}`).join(', ')}`;
  if (/[{}]/.test(template.replaceAll(NAMED, ''))) return 'A brace is open or has something else than a name in it';
  return null;
}
