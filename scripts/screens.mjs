// Writes docs/screens.md: which file is behind each screen, which routes it asks, and which service answers.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureModules } from './lib/ensure.mjs';
import { fail, ROOT } from './lib/shell.mjs';

ensureModules()
  .then(async () => {
    const { screensPage } = await import('./lib/screens.mjs');
    writeFileSync(join(ROOT, 'docs/screens.md'), screensPage());
  })
  .catch(fail);
