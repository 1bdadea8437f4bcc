// Lint, formatting, types and the project's own rules.
import { ensureBuilt, ensureModules } from './lib/ensure.mjs';
import { houseRules } from './lib/house-rules.mjs';
import { run, say } from './lib/shell.mjs';

const STEPS = [
  ['Formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['Types, core', 'npx', ['tsc', '-p', 'core/tsconfig.json']],
  ['Types, server', 'npx', ['tsc', '-p', 'server/tsconfig.json']],
  ['Types, outside', 'npx', ['tsc', '-p', 'outside/tsconfig.json']],
  ['Types, web', 'npx', ['tsc', '-p', 'web/tsconfig.json']],
  ['Types, journeys', 'npx', ['tsc', '-p', 'e2e/tsconfig.json']],
  ['Lint', 'npx', ['eslint', '.', '--max-warnings', '0']],
];

/** Runs every check; returns the names of those that failed. */
export async function check() {
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  const failed = [];
  for (const [name, command, args] of STEPS) {
    say(`${name} …`);
    await run(command, args).catch(() => failed.push(name));
  }
  say('House rules …');
  const findings = houseRules();
  findings.forEach((finding) => say(`  ${finding}`));
  if (findings.length > 0) failed.push('House rules');
  return { failed, total: STEPS.length + 1 };
}

if (import.meta.url === `file://${process.argv[1]}`) {
  const { failed } = await check();
  say(failed.length === 0 ? 'All checks pass' : `Failed: ${failed.join(', ')}`);
  process.exit(failed.length === 0 ? 0 : 1);
}
