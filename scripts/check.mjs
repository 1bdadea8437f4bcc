// Lint, formatting, types and the project's own rules.
import { ensureBuilt, ensureModules } from './lib/ensure.mjs';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bundleFindings } from './lib/bundles.mjs';
import { houseRules } from './lib/house-rules.mjs';
import { ROOT, run, say } from './lib/shell.mjs';

/** The longest first: two run at a time. */
const STEPS = [
  ['Lint, server', 'npx', ['eslint', 'server', '--max-warnings', '0']],
  ['Lint, the rest', 'npx', ['eslint', '.', '--ignore-pattern', 'server/', '--max-warnings', '0']],
  ['Types, web', 'npx', ['tsc', '-p', 'web/tsconfig.json']],
  ['Formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['Types, core', 'npx', ['tsc', '-p', 'core/tsconfig.json']],
  ['Types, server', 'npx', ['tsc', '-p', 'server/tsconfig.json']],
  ['Types, outside', 'npx', ['tsc', '-p', 'outside/tsconfig.json']],
  ['Types, journeys', 'npx', ['tsc', '-p', 'e2e/tsconfig.json']],
];

/** Runs the steps, two at a time; returns the names of those that failed. */
async function runSteps() {
  const failed = [];
  const waiting = [...STEPS];
  const hand = async () => {
    for (let step = waiting.shift(); step; step = waiting.shift()) {
      const [name, command, args] = step;
      say(`${name} …`);
      await run(command, args).catch(() => failed.push(name));
    }
  };
  await Promise.all([hand(), hand()]);
  return failed;
}

/** Whether the checked-in OpenAPI document is the one that the built server makes. */
async function openApiIsCurrent() {
  const path = join(ROOT, 'server/openapi.json');
  const before = readFileSync(path, 'utf8');
  await run('node', ['server/dist/tools/write-openapi.js']);
  if (readFileSync(path, 'utf8') !== before) throw new Error('server/openapi.json was not current. Run npm run openapi');
}

/** Whether docs/screens.md says where the code behind each screen is. */
async function screensAreMapped() {
  const { screensPage } = await import('./lib/screens.mjs');
  const format = (text) => text.replace(/\s+/g, ' ').trim();
  const kept = readFileSync(join(ROOT, 'docs/screens.md'), 'utf8');
  return format(kept) === format(screensPage()) ? [] : ['docs/screens.md is not current. Run npm run screens'];
}

/** Runs every check; returns the names of those that failed. */
export async function check() {
  await ensureModules();
  await ensureBuilt(['core', 'server', 'web']);
  const failed = await runSteps();
  say('OpenAPI document …');
  await openApiIsCurrent().catch((thrown) => {
    say(`  ${thrown.message}`);
    failed.push('OpenAPI document');
  });
  for (const [name, findingsOf] of [
    ['House rules', houseRules],
    ['Map of screens', screensAreMapped],
    ['Bundles', bundleFindings],
  ]) {
    say(`${name} …`);
    const findings = await findingsOf();
    findings.forEach((finding) => say(`  ${finding}`));
    if (findings.length > 0) failed.push(name);
  }
  return { failed, total: STEPS.length + 4 };
}

if (import.meta.url === `file://${process.argv[1]}`) {
  const { failed } = await check();
  say(failed.length === 0 ? 'All checks pass' : `Failed: ${failed.join(', ')}`);
  process.exit(failed.length === 0 ? 0 : 1);
}
