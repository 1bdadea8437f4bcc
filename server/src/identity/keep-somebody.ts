import { badState, parsed, rows, type Tx } from '../platform/index.js';
import { dutyMatrix } from './duty-matrix.js';
import { type Duty, rightsOf } from './duties.js';

/** Refuses to leave a house that nobody could set up, or where nobody could agree to what others ask. */
export async function keepSomebody(tx: Tx): Promise<void> {
  const matrix = await dutyMatrix(tx);
  const people = await rows<{ duties: unknown }>(tx, 'SELECT duties FROM person WHERE active = 1 AND password_hash IS NOT NULL');
  const duties = people.map((p) => parsed<Duty[]>(p.duties));
  if (!duties.some((d) => rightsOf(d, matrix).has('set-up')))
    throw badState('Somebody must be left who can set up people. Give the duty to another first');
  if (!duties.some((d) => d.includes('owner'))) throw badState('An owner must be left. Make another person an owner first');
}
