import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { bundleWords } from './bundles.mjs';
import { capture, ROOT, run, say } from './shell.mjs';

const STAMPS = join(ROOT, '.cache');
const PATHS = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin', '/sbin'];

/** Where a program is, or undefined. */
export function which(program) {
  return PATHS.map((dir) => join(dir, program)).find((path) => existsSync(path));
}

/** Installs Debian packages whose programs are missing: as root, through sudo, or by telling the one command. */
export async function ensurePrograms(wanted) {
  const missing = Object.entries(wanted)
    .filter(([program]) => !which(program))
    .map(([, pkg]) => pkg);
  if (missing.length === 0) return;
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const byHand = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!which('apt-get') || (sudo.length > 0 && (await capture('sudo', ['-n', 'true']).catch(() => ({ code: 1 }))).code !== 0)) {
    throw new Error(`Something is missing on this machine. Run this once as root, then try again:\n  ${byHand}`);
  }
  say(`Installing ${missing.join(', ')} …`);
  const apt = (args) =>
    run([...sudo, 'apt-get'][0], [...[...sudo, 'apt-get'].slice(1), '-o', 'DPkg::Lock::Timeout=300', ...args], {
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  await apt(['update', '-q']);
  await apt(['install', '-y', '-q', '--no-install-recommends', ...missing]);
}

function stampOf(name) {
  const path = join(STAMPS, name);
  return existsSync(path) ? readFileSync(path, 'utf8') : '';
}

function stamp(name, value) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(join(STAMPS, name), value);
}

/** `npm ci`, where the lock file is not the one that was installed last. `first` is asked before anything is changed. */
export async function ensureModules(first = () => undefined) {
  const hash = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(join(ROOT, 'node_modules')) && stampOf('modules') === hash) return;
  first();
  say('Installing packages …');
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    env: { ...process.env, NODE_ENV: 'development' },
  });
  stamp('modules', hash);
}

function* filesIn(dir) {
  for (const entry of readdirSync(dir, { withFileTypes: true })) {
    if (['node_modules', 'dist', 'test', 'test-results', 'openapi.json'].includes(entry.name)) continue;
    const path = join(dir, entry.name);
    if (entry.isDirectory()) yield* filesIn(path);
    else yield path;
  }
}

function sourcesHash(dirs) {
  const hash = createHash('sha256');
  for (const dir of dirs) {
    for (const path of filesIn(join(ROOT, dir))) {
      const { mtimeMs, size } = statSync(path);
      hash.update(`${path} ${mtimeMs} ${size}\n`);
    }
  }
  return hash.digest('hex');
}

const PARTS = [
  { name: 'core', dirs: ['core'], command: ['npx', ['tsc', '-p', 'core/tsconfig.build.json']] },
  { name: 'server', dirs: ['core', 'server'], command: ['node', ['server/build.mjs']] },
  { name: 'outside', dirs: ['outside'], command: ['npx', ['tsc', '-p', 'outside/tsconfig.build.json']] },
  {
    name: 'web',
    dirs: ['core', 'web'],
    command: ['npx', ['vite', 'build', '--logLevel', 'warn', 'web', '--config', 'web/vite.config.ts']],
  },
];

/** Builds the parts whose sources have changed since they were built. `first` is asked before anything is changed. */
export async function ensureBuilt(names = PARTS.map((p) => p.name), first = () => undefined) {
  for (const part of PARTS.filter((p) => names.includes(p.name))) {
    const hash = sourcesHash(part.dirs);
    if (existsSync(join(ROOT, part.name, 'dist')) && stampOf(`built-${part.name}`) === hash) continue;
    first();
    say(`Building ${part.name} …`);
    await run(part.command[0], part.command[1]);
    stamp(`built-${part.name}`, hash);
    if (part.name === 'web') say(`  first load, packed: ${bundleWords()}`);
  }
}
