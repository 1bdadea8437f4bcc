import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { inTransaction, one, rows } from '../platform/database/tx.js';
import { Problem } from '../platform/problem.js';
import type { Duty } from './duties.js';
import { secretHash } from './secrets.js';

export interface NewPerson {
  name: string;
  email: string;
  password: string;
  duties: Duty[];
  seesCosts: boolean;
  siteIds: number[];
  badge?: string;
  pin?: string;
}

@Injectable()
export class PeopleService {
  constructor(private readonly source: DataSource) {}

  async add(person: NewPerson): Promise<number> {
    const [password, pin] = await Promise.all([secretHash(person.password), person.pin ? secretHash(person.pin) : null]);
    return inTransaction(this.source, async (tx) => {
      const done = await tx.query<{ insertId: number }>(
        'INSERT INTO person (name, email, password_hash, badge_code, pin_hash, duties, sees_costs) VALUES (?, ?, ?, ?, ?, ?, ?)',
        [
          person.name,
          person.email.toLowerCase(),
          password,
          person.badge ?? null,
          pin,
          JSON.stringify(person.duties),
          person.seesCosts ? 1 : 0,
        ],
      );
      for (const siteId of person.siteIds)
        await tx.query('INSERT INTO person_site (person_id, site_id) VALUES (?, ?)', [done.insertId, siteId]);
      return done.insertId;
    });
  }

  list() {
    return rows<{
      id: number;
      name: string;
      email: string;
      duties: string;
      badge: string | null;
      sites: string;
    }>(
      this.source,
      `SELECT p.id, p.name, p.email, p.duties, p.badge_code AS badge, COALESCE(GROUP_CONCAT(s.name ORDER BY s.id SEPARATOR ', '), '') AS sites
       FROM person p LEFT JOIN person_site ps ON ps.person_id = p.id LEFT JOIN site s ON s.id = ps.site_id
       WHERE p.active = 1 GROUP BY p.id ORDER BY p.name`,
    );
  }

  async isFirstRun(): Promise<boolean> {
    return (await one(this.source, 'SELECT id FROM person LIMIT 1')) === undefined;
  }

  /** Makes the owner's account and the first site of a new house; refused once there is anybody. */
  async foundHouse(input: { name: string; email: string; password: string; siteName: string; siteCode: string }): Promise<void> {
    await this.source.query(`SELECT GET_LOCK('vectrum-first-owner', 30)`);
    try {
      if (!(await this.isFirstRun())) throw new Problem(409, 'state', 'This house has its owner already. Sign in');
      const site = await this.source.query<{ insertId: number }>('INSERT INTO site (code, name) VALUES (?, ?)', [
        input.siteCode.toUpperCase(),
        input.siteName,
      ]);
      await this.source.query(
        `INSERT INTO place (site_id, code, kind, walk_order) VALUES (?, 'DOCK-1', 'dock', 0), (?, 'TABLE-1', 'packing-table', 9000)`,
        [site.insertId, site.insertId],
      );
      await this.add({ ...input, duties: ['owner'], seesCosts: true, siteIds: [site.insertId] });
    } finally {
      await this.source.query(`SELECT RELEASE_LOCK('vectrum-first-owner')`);
    }
  }
}
