import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Config, NOW, one, parsed, type Person, prepared, Problem, rows, update } from '../platform/index.js';
import { type Duty, type DutyMatrix, rightsOf } from './duties.js';
import { newToken, secretMatches, tokenHash } from './secrets.js';
import { badgeTries, signInTries, Tries } from './tries.service.js';

interface Secrets {
  id: number;
  password_hash: string | null;
  pin_hash: string | null;
}

interface PersonFacts {
  id: number;
  name: string;
  duties: string | Duty[];
  sees_costs: number;
  matrix: unknown;
  /** The person's sites, the usual one first; null where there are none. */
  sites: string | null;
}

/** Who somebody is and what they may do, in one reading, since every request begins with it. */
const FACTS = `p.id, p.name, p.duties, p.sees_costs, (SELECT value FROM setting WHERE name = 'duties') AS matrix,
  (SELECT GROUP_CONCAT(a.site_id ORDER BY a.site_id <=> p.usual_site_id DESC, a.site_id) FROM person_site a WHERE a.person_id = p.id) AS sites`;

function personOf(facts: PersonFacts): Person {
  const duties = parsed<Duty[]>(facts.duties);
  return {
    id: facts.id,
    name: facts.name,
    rights: rightsOf(duties, parsed<DutyMatrix | null>(facts.matrix) ?? {}),
    isOwner: duties.includes('owner'),
    siteIds: facts.sites ? facts.sites.split(',').map(Number) : [],
    seesCosts: facts.sees_costs === 1,
  };
}

export interface SignedIn {
  token: string;
  personId: number;
  hours: number;
}

const STANDING = `FROM session s JOIN person p ON p.id = s.person_id AND p.active = 1 LEFT JOIN device d ON d.id = s.device_id
  WHERE s.ended_at IS NULL AND s.expires_at > UTC_TIMESTAMP(3) AND (d.id IS NULL OR d.revoked_at IS NULL)`;

/** Sign in by e-mail and password, or by badge and PIN on an enrolled device; find the person behind a cookie. */
@Injectable()
export class SessionService {
  constructor(
    private readonly source: DataSource,
    private readonly config: Config,
    private readonly tries: Tries,
  ) {}

  /** `address`: where it was asked from. */
  async signIn(email: string, password: string, deviceToken: string | undefined, address: string): Promise<SignedIn> {
    const account = email.trim().toLowerCase();
    const counted = signInTries(account, address);
    await this.tries.count(counted);
    const facts = await one<Secrets>(this.source, 'SELECT id, password_hash, pin_hash FROM person WHERE email = ? AND active = 1', [
      account,
    ]);
    await this.prove(facts?.password_hash ?? null, password, 'E-mail and password do not match. Check both and try again');
    await this.tries.right(counted);
    const device = await this.device(deviceToken);
    return this.open(facts, device?.id ?? null);
  }

  async signInWithBadge(badge: string, pin: string, deviceToken: string | undefined): Promise<SignedIn> {
    const device = await this.device(deviceToken);
    if (!device) throw new Problem(403, 'device', 'This device is not enrolled. Scan an enrolment code from Setup first');
    const code = badge.trim().toUpperCase();
    const counted = badgeTries(code, device.id);
    await this.tries.count(counted);
    const facts = await one<Secrets>(this.source, 'SELECT id, password_hash, pin_hash FROM person WHERE badge_code = ? AND active = 1', [
      code,
    ]);
    await this.prove(facts?.pin_hash ?? null, pin, 'Badge and PIN do not match. Try again');
    await this.tries.right(counted);
    return this.open(facts, device.id);
  }

  async signOut(token: string | undefined): Promise<void> {
    if (token) await update(this.source, 'session', { token_hash: tokenHash(token) }, { ended_at: NOW });
  }

  async find(token: string | undefined): Promise<{ person: Person; deviceId: number | null } | undefined> {
    if (!token) return undefined;
    const [found] = await prepared<(PersonFacts & { device_id: number | null })[]>(
      this.source,
      `SELECT ${FACTS}, s.device_id ${STANDING} AND s.token_hash = ?`,
      [tokenHash(token)],
    );
    return found && { deviceId: found.device_id, person: personOf(found) };
  }

  /** Those of some sessions that still stand: not signed out, not run out, the person still here and the device not revoked. */
  async standing(tokens: readonly string[]): Promise<Set<string>> {
    if (tokens.length === 0) return new Set();
    const byHash = new Map(tokens.map((token) => [tokenHash(token), token]));
    const found = await rows<{ hash: string }>(this.source, `SELECT s.token_hash AS hash ${STANDING} AND s.token_hash IN (?)`, [
      [...byHash.keys()],
    ]);
    return new Set(found.flatMap((f) => byHash.get(f.hash) ?? []));
  }

  /** A person by number, with what they may do now; undefined for who has left. */
  async person(id: number): Promise<Person | undefined> {
    const facts = await one<PersonFacts>(this.source, `SELECT ${FACTS} FROM person p WHERE p.id = ? AND p.active = 1`, [id]);
    return facts && personOf(facts);
  }

  /** The enrolled device behind a device cookie. */
  async device(token: string | undefined): Promise<{ id: number; name: string; siteId: number } | undefined> {
    if (!token) return undefined;
    return one(this.source, 'SELECT id, name, site_id AS siteId FROM device WHERE token_hash = ? AND revoked_at IS NULL', [
      tokenHash(token),
    ]);
  }

  /** An absent secret costs the same as a wrong one, so that nobody learns who is known here. */
  private async prove(stored: string | null, secret: string, sentence: string): Promise<void> {
    if (!(await secretMatches(stored, secret))) throw new Problem(401, 'sign-in', sentence);
  }

  private async open(facts: Secrets | undefined, deviceId: number | null): Promise<SignedIn> {
    if (!facts) throw new Problem(401, 'sign-in', 'Nobody by that name');
    const token = newToken();
    await this.source.query(
      'INSERT INTO session (token_hash, person_id, device_id, expires_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3) + INTERVAL ? HOUR)',
      [tokenHash(token), facts.id, deviceId, this.config.SESSION_HOURS],
    );
    return { token, personId: facts.id, hours: this.config.SESSION_HOURS };
  }
}
