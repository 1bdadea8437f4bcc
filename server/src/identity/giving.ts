import { badForm, badState, parsed, type Person, type Row } from '../platform/index.js';
import type { DutyMatrix, Duty } from './duties.js';
import { rightsOf, setName } from './duties.js';

/** What somebody may do, see and where. */
export interface Standing {
  duties: readonly Duty[];
  seesCosts: boolean;
  siteIds: readonly number[];
}

const differing = <T>(a: readonly T[], b: readonly T[]): T[] => [...a.filter((x) => !b.includes(x)), ...b.filter((x) => !a.includes(x))];

/** The first right of some duties that a person has not; `owner` stands for the duty itself. */
function beyond(person: Person, duties: readonly Duty[], matrix: DutyMatrix): string | undefined {
  if (duties.includes('owner') && !person.isOwner) return 'owner';
  return [...rightsOf(duties, matrix)].find((right) => !person.rights.has(right));
}

/** The field of a change from one standing to another that goes beyond whoever gives, with why; null where none does. */
function tooFar(giver: Person, matrix: DutyMatrix, before: Standing, after: Standing): Record<string, string> | null {
  if (after.siteIds.some((site) => !giver.siteIds.includes(site)))
    return { siteIds: 'You can set people up only for sites where you are set up yourself' };
  if (before.seesCosts !== after.seesCosts && !giver.seesCosts)
    return { seesCosts: 'Only those who may see costs can let others see them, or stop it' };
  const far = beyond(giver, differing(before.duties, after.duties), matrix);
  if (far === 'owner') return { duties: 'Only an owner makes another an owner, or takes that away. Ask one' };
  return far === undefined ? null : { duties: `These duties differ by the right to ${setName(far)}, which you have not. Ask an owner` };
}

export const isTheirsToGive = (giver: Person, matrix: DutyMatrix, before: Standing, after: Standing): boolean =>
  tooFar(giver, matrix, before, after) === null;

/** Whether a person may do all that another may. */
export const standsAbove = (giver: Person, matrix: DutyMatrix, standing: Standing): boolean =>
  beyond(giver, standing.duties, matrix) === undefined && (!standing.seesCosts || giver.seesCosts);

/**
 * Nobody gives more than they have, or takes away what is not theirs: refuses a change from one standing to another, by the
 * field that goes too far. Sites are those of the person who gives, so others are never among them.
 */
export function mustBeTheirsToGive(giver: Person, matrix: DutyMatrix, before: Standing, after: Standing): void {
  const fault = tooFar(giver, matrix, before, after);
  if (fault) throw badForm(fault);
}

/** Refuses to let somebody go, or to give them another address, who may do more than the person who asks. */
export function mustStandAbove(giver: Person, matrix: DutyMatrix, standing: Standing): void {
  if (!standsAbove(giver, matrix, standing)) throw badState('This person may do more than you. Ask an owner to change this');
}

/** What a person may do now; sites are left out, since each is given by itself. */
export const standingOf = (person: Row<'person'>): Standing => ({
  duties: parsed<Duty[]>(person.duties),
  seesCosts: person.sees_costs === 1,
  siteIds: [],
});
