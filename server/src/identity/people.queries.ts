import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { find, notFound, num, one, parsed, type Person, type Row, rows, type Tx } from '../platform/index.js';
import { type Duty, type Right, rightsOf } from './duties.js';
import { dutyMatrix } from './duty-matrix.js';
import type { AskedChangeDto, PersonDto } from './identity.dto.js';

/** Whom a person sees and may set up: who works at one of their sites, or at none yet; an owner, everybody. */
const WITHIN = `(? = 1 OR NOT EXISTS (SELECT 1 FROM person_site w WHERE w.person_id = p.id) OR EXISTS (SELECT 1 FROM person_site w WHERE w.person_id = p.id AND w.site_id IN (?)))`;
const withinOf = (by: Person): unknown[] => [by.isOwner ? 1 : 0, [0, ...by.siteIds]];

export async function reaches(tx: Pick<Tx, 'query'>, by: Person, id: number): Promise<boolean> {
  return (await one(tx, `SELECT p.id FROM person p WHERE p.id = ? AND ${WITHIN}`, [id, ...withinOf(by)])) !== undefined;
}

/** A person as they are kept, whom another may see and set up. */
export async function personWithin(tx: Tx, by: Person, id: number, lock?: 'lock'): Promise<Row<'person'>> {
  const person = await find(tx, 'person', { id }, lock);
  if (!person || !(await reaches(tx, by, id))) throw notFound('That person');
  return person;
}

/** Reads people, with their duties, sites and state. */
@Injectable()
export class PeopleQueries {
  constructor(private readonly source: DataSource) {}

  /** What was asked to be changed of a person; null where nothing waits. */
  async asked(personId: number): Promise<AskedChangeDto | null> {
    const found = await one<{ email: string | null; duties: unknown; by: string }>(
      this.source,
      'SELECT c.email, c.duties, b.name AS `by` FROM person_change c JOIN person b ON b.id = c.asked_by WHERE c.person_id = ?',
      [personId],
    );
    return found ? { ...found, duties: found.duties === null ? null : parsed<string[]>(found.duties) } : null;
  }

  /** Who has a right and works at a site, by name. */
  async allowedAt(tx: Pick<Tx, 'query'>, siteId: number, right: Right): Promise<{ id: number; name: string }[]> {
    const people = await rows<{ id: number; name: string; duties: unknown }>(
      tx,
      'SELECT p.id, p.name, p.duties FROM person p JOIN person_site s ON s.person_id = p.id AND s.site_id = ? WHERE p.active = 1 ORDER BY p.name, p.id',
      [siteId],
    );
    const matrix = await dutyMatrix(tx);
    return people.filter((p) => rightsOf(parsed<Duty[]>(p.duties), matrix).has(right)).map(({ id, name }) => ({ id, name }));
  }

  /** Those whom a person may set up, with what was asked to be changed of them; sites of others are not named. */
  async list(by: Person): Promise<PersonDto[]> {
    const found = await rows<
      Omit<PersonDto, 'email' | 'duties' | 'siteIds' | 'seesCosts' | 'state' | 'sessions' | 'asked' | 'mail' | 'hasPassword' | 'hasPin'> & {
        email: string | null;
        hasPassword: number;
        hasPin: number;
        mailState: string | null;
        mailWhy: string | null;
        duties: unknown;
        siteIds: string | null;
        seesCosts: number;
        active: number;
        sessions: string;
        askedEmail: string | null;
        askedDuties: unknown;
        askedBy: string | null;
      }
    >(
      this.source,
      `SELECT p.id, p.name, p.email, p.duties, p.badge_code AS badge, p.sees_costs AS seesCosts, p.usual_site_id AS usualSiteId, p.usual_duty AS usualDuty, p.active, p.version,
         p.password_hash IS NOT NULL AS hasPassword, p.pin_hash IS NOT NULL AS hasPin, m.state AS mailState, m.last_error AS mailWhy, COALESCE(GROUP_CONCAT(s.name ORDER BY s.id SEPARATOR ', '), '') AS sites, GROUP_CONCAT(s.id ORDER BY s.id) AS siteIds,
         (SELECT a.at FROM activity a WHERE a.person_id = p.id ORDER BY a.id DESC LIMIT 1) AS lastAct,
         (SELECT COUNT(*) FROM session x WHERE x.person_id = p.id AND x.ended_at IS NULL AND x.expires_at > UTC_TIMESTAMP(3)) AS sessions,
         c.email AS askedEmail, c.duties AS askedDuties, (SELECT b.name FROM person b WHERE b.id = c.asked_by) AS askedBy
       FROM person p LEFT JOIN person_site ps ON ps.person_id = p.id AND ps.site_id IN (?) LEFT JOIN site s ON s.id = ps.site_id LEFT JOIN person_change c ON c.person_id = p.id
         LEFT JOIN outbox m ON m.id = (SELECT MAX(y.id) FROM outbox y WHERE y.kind = 'mail.door' AND y.receiver = CONCAT('mail:', p.email))
       WHERE ${WITHIN} GROUP BY p.id ORDER BY p.active DESC, p.name`,
      [[0, ...by.siteIds], ...withinOf(by)],
    );
    return found.map(({ active, hasPassword, hasPin, mailState, mailWhy, askedEmail, askedDuties, askedBy, ...p }) => ({
      ...p,
      email: p.email ?? '',
      hasPassword: num(hasPassword) === 1,
      hasPin: num(hasPin) === 1,
      mail: mailState === null ? null : { state: mailState, why: mailState === 'done' ? null : mailWhy },
      duties: parsed<string[]>(p.duties),
      siteIds: p.siteIds ? p.siteIds.split(',').map(Number) : [],
      seesCosts: p.seesCosts === 1,
      sessions: num(p.sessions),
      asked:
        askedBy === null ? null : { email: askedEmail, duties: askedDuties === null ? null : parsed<string[]>(askedDuties), by: askedBy },
      state: active === 0 ? 'left' : num(hasPassword) === 1 || num(hasPin) === 1 ? 'here' : 'invited',
    }));
  }
}
