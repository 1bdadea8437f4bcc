// Runs one computation of the core on one JSON document: npm run --silent solve -- NAME < input.json > output.json
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT, run } from './lib/shell.mjs';

const SOLVER = join(ROOT, 'core/dist/solve/index.js');

async function readInput() {
  const parts = [];
  for await (const part of process.stdin) parts.push(part);
  return Buffer.concat(parts).toString('utf8');
}

async function main() {
  const text = await readInput();
  if (!existsSync(SOLVER)) await run('npx', ['tsc', '-p', 'core/tsconfig.build.json'], { stdio: ['ignore', 2, 2] });
  const { solve } = await import(pathToFileURL(SOLVER).href);
  const { output, code } = solve(process.argv[2] ?? '', text, () => performance.now());
  process.stdout.write(`${JSON.stringify(output)}\n`);
  process.exitCode = code;
}

main().catch((thrown) => {
  process.stdout.write(`${JSON.stringify({ error: { message: thrown instanceof Error ? thrown.message : String(thrown), path: '' } })}\n`);
  process.exitCode = 1;
});
