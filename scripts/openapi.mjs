// Writes server/openapi.json from the built server, and the web client's types from that.
import { ensureBuilt, ensureModules } from './lib/ensure.mjs';
import { join } from 'node:path';
import { fail, ROOT, run } from './lib/shell.mjs';

async function main() {
  await ensureModules();
  await ensureBuilt(['core', 'server']);
  await run('node', ['server/dist/tools/write-openapi.js']);
  await run('npx', ['openapi-typescript', '../server/openapi.json', '-o', 'src/api/schema.d.ts', '--default-non-nullable', 'false'], {
    cwd: join(ROOT, 'web'),
  });
}

main().catch(fail);
