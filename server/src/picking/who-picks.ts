import type { PeopleQueries } from '../identity/index.js';
import { badForm, type Tx } from '../platform/index.js';

/** The names of people, as far as they pick at a site; refuses whoever does not. `field` is what the form asks them under. */
export async function namesOfPickers(
  people: PeopleQueries,
  tx: Tx,
  siteId: number,
  ids: readonly number[],
  field: string,
): Promise<string[]> {
  if (ids.length === 0) return [];
  const allowed = await people.allowedAt(tx, siteId, 'pick');
  return ids.map((id) => {
    const person = allowed.find((p) => p.id === id);
    if (!person) throw badForm({ [field]: 'One of these people does not pick at this site. Choose somebody who does' });
    return person.name;
  });
}
