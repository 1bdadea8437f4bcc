// Builds core, server, outside and web, as far as their sources have changed.
import { ensureBuilt, ensureModules } from './lib/ensure.mjs';
import { fail } from './lib/shell.mjs';

ensureModules()
  .then(() => ensureBuilt())
  .catch(fail);
