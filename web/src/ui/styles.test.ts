import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';

const SRC = join(__dirname, '..');
const STYLES = join(__dirname, 'styles');
/** Looks of words and figures, which stand anywhere. */
const ANYWHERE = 'text.css';

function filesIn(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : [path];
  });
}

const classesIn = (css: string): Set<string> =>
  new Set([...css.replaceAll(/\{[^}]*\}/g, '{}').matchAll(/\.([a-zA-Z][\w-]*)/g)].map((m) => m[1] ?? ''));
const sheet = (name: string) => classesIn(readFileSync(join(STYLES, name), 'utf8'));

/** The words of a file's class names: those within className="…", and the strings within className={…}. */
function wordsIn(source: string): Set<string> {
  const found = new Set<string>();
  for (const [, plain, code] of source.matchAll(/className=(?:"([^"]*)"|\{((?:[^{}]|\{[^{}]*\})*)\})/g)) {
    const strings =
      plain ??
      [...(code ?? '').replaceAll(/[!=]== '[^']*'/g, '').matchAll(/'([^']*)'|`([^`]*)`/g)]
        .map((m) => m[1] ?? (m[2] ?? '').replaceAll(/\$\{[^}]*\}/g, ' '))
        .join(' ');
    for (const word of strings.split(/\s+/)) if (word) found.add(word);
  }
  return found;
}

describe('classes of the style sheets', () => {
  const anywhere = sheet(ANYWHERE);
  const owned = new Set(
    readdirSync(STYLES)
      .filter((name) => name !== ANYWHERE)
      .flatMap((name) => [...sheet(name)])
      .filter((name) => !anywhere.has(name)),
  );
  const users = new Map<string, string[]>();
  for (const path of filesIn(SRC).filter((f) => f.endsWith('.tsx') && !f.endsWith('.test.tsx')))
    for (const word of wordsIn(readFileSync(path, 'utf8')))
      if (owned.has(word)) users.set(word, [...(users.get(word) ?? []), relative(SRC, path)]);

  it('belong to one file each: what two pages share is a component of ui', () => {
    const shared = [...users].filter(([, files]) => files.length > 1).map(([name, files]) => `${name}: ${files.join(', ')}`);
    expect(shared).toEqual([]);
  });

  it('are all used', () => {
    const all = filesIn(SRC)
      .filter((f) => /\.tsx?$/.test(f))
      .map((f) => readFileSync(f, 'utf8'))
      .join('\n');
    // Glyphs are put together from their names.
    const unused = [...owned, ...anywhere].filter((name) => !name.startsWith('g-') && !new RegExp(`['"\`\\s]${name}['"\`\\s]`).test(all));
    expect(unused).toEqual([]);
  });
});
