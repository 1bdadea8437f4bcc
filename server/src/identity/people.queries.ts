import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, parsed, rows } from '../platform/index.js';
import type { PersonDto } from './identity.dto.js';

/** Reads people, with their duties, sites and state. */
@Injectable()
export class PeopleQueries {
  constructor(private readonly source: DataSource) {}

  async list(): Promise<PersonDto[]> {
    const found = await rows<
      Omit<PersonDto, 'duties' | 'siteIds' | 'seesCosts' | 'state' | 'sessions'> & {
        duties: unknown;
        siteIds: string | null;
        seesCosts: number;
        active: number;
        joined: number;
        sessions: string;
      }
    >(
      this.source,
      `SELECT p.id, p.name, p.email, p.duties, p.badge_code AS badge, p.sees_costs AS seesCosts, p.usual_site_id AS usualSiteId, p.usual_duty AS usualDuty, p.active, p.version,
         (p.password_hash IS NOT NULL) AS joined, COALESCE(GROUP_CONCAT(s.name ORDER BY s.id SEPARATOR ', '), '') AS sites, GROUP_CONCAT(s.id ORDER BY s.id) AS siteIds,
         (SELECT MAX(a.at) FROM activity a WHERE a.person_id = p.id) AS lastAct,
         (SELECT COUNT(*) FROM session x WHERE x.person_id = p.id AND x.ended_at IS NULL AND x.expires_at > UTC_TIMESTAMP(3)) AS sessions
       FROM person p LEFT JOIN person_site ps ON ps.person_id = p.id LEFT JOIN site s ON s.id = ps.site_id GROUP BY p.id ORDER BY p.active DESC, p.name`,
    );
    return found.map(({ active, joined, ...p }) => ({
      ...p,
      duties: parsed<string[]>(p.duties),
      siteIds: p.siteIds ? p.siteIds.split(',').map(Number) : [],
      seesCosts: p.seesCosts === 1,
      sessions: num(p.sessions),
      state: active === 0 ? 'left' : num(joined) === 1 ? 'here' : 'invited',
    }));
  }
}
