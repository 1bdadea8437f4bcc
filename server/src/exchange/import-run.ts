import { createHash } from 'node:crypto';
import { mustHave } from '../identity/index.js';
import { notFound, one, type Person, remove, type Tx, update } from '../platform/index.js';
import type { Shape } from './shape.js';

/** An import as it is kept. */
export interface RunRow {
  id: string;
  file_name: string;
  file_hash: string;
  kind: string;
  columns: unknown;
  mapping: unknown;
  units: unknown;
  words: unknown;
  state: string;
  good_only: number;
  total: number;
  made: number;
  changed: number;
  person_id: number;
}

/** An import is carried out with what its beginner may do: nobody but they and an owner goes on with it. Its row is held. */
export async function lockedRun(tx: Tx, id: string, person: Person): Promise<RunRow> {
  const run = await one<RunRow>(tx, 'SELECT * FROM import_run WHERE id = ? FOR UPDATE', [id]);
  if (!run || (run.person_id !== person.id && !person.isOwner)) throw notFound('That import');
  return run;
}

/** A file's shape: its heads, whatever their case. */
export const shapeHash = (heads: readonly string[]) =>
  createHash('sha256')
    .update(JSON.stringify(heads.map((h) => h.trim().toLowerCase())))
    .digest('hex');

export const mustMay = (person: Person, shape: Shape) => mustHave(person, shape.right, `Taking in ${shape.says.toLowerCase()}`);

/** A run whose rows are to be looked at once more. */
export const checkAnew = { state: 'checking', done: 0, faulty: 0, problem: null, leased_until: null } as const;

export async function forgetFaults(tx: Tx, id: string): Promise<void> {
  await remove(tx, 'import_fault', { import_id: id });
  await update(tx, 'import_row', { import_id: id, faulty: 1 }, { faulty: 0 });
}
