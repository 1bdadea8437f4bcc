// What a browser loads before it can show each face of the interface.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { ROOT } from './shell.mjs';

const DIST = join(ROOT, 'web/dist');
/** The most that the first load of a face may weigh, packed, in kB of 1,000 bytes. */
const FACES = [
  { face: 'Floor', entry: 'src/floor/routes.tsx', most: 200 },
  { face: 'Bench', entry: 'src/bench/routes.tsx', most: 200 },
  { face: 'Office', entry: 'src/office/routes.tsx', most: 350 },
];

/** The files of a chunk and of all that it needs at once, without those that are read later. */
function filesOf(manifest, name, seen = new Set()) {
  const chunk = manifest[name];
  if (!chunk || seen.has(name)) return seen;
  seen.add(name);
  for (const other of chunk.imports ?? []) filesOf(manifest, other, seen);
  return seen;
}

/** For each face: how much its first load weighs, packed, scripts and styles. Fonts and pictures come beside it. */
export function bundleSizes() {
  const manifest = JSON.parse(readFileSync(join(DIST, '.vite/manifest.json'), 'utf8'));
  const packed = (file) => gzipSync(readFileSync(join(DIST, file)), { level: 9 }).length;
  return FACES.map(({ face, entry, most }) => {
    const chunks = filesOf(manifest, entry, filesOf(manifest, 'index.html'));
    const files = new Set([...chunks].flatMap((name) => [manifest[name].file, ...(manifest[name].css ?? [])]));
    return { face, most, kB: Math.round([...files].reduce((sum, file) => sum + packed(file), 0) / 100) / 10 };
  });
}

export const bundleWords = () =>
  bundleSizes()
    .map(({ face, kB, most }) => `${face} ${kB} kB (of ${most})`)
    .join(', ');

/** Faces that have become too heavy, in words. */
export const bundleFindings = () =>
  bundleSizes()
    .filter(({ kB, most }) => kB > most)
    .map(({ face, kB, most }) => `First load of ${face}: ${kB} kB, more than ${most}. Read what is not needed at once later`);
