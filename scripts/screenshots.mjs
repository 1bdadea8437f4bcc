// Takes docs/screenshots anew from a freshly loaded demo.
import { ensureBuilt, ensureModules, ensurePrograms } from './lib/ensure.mjs';
import { fail, run } from './lib/shell.mjs';

async function main() {
  await ensurePrograms({ mariadbd: 'mariadb-server', chromium: 'chromium' });
  await ensureModules();
  await ensureBuilt();
  await run('npx', ['playwright', 'test', '--config', 'e2e/screenshots.config.ts']);
}

main().catch(fail);
