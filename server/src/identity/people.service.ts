import { randomInt } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  holdList,
  insert,
  insertMany,
  inTransaction,
  mustMatch,
  NEXT,
  notFound,
  one,
  Outbox,
  Problem,
  remove,
  type Tx,
  update,
} from '../platform/index.js';
import { keepSetting } from '../settings/index.js';
import { dutyMatrix } from './duty-matrix.js';
import { DUTIES, DUTY_RIGHTS, type Duty, RIGHTS } from './duties.js';
import { mustBeTheirsToGive, mustStandAbove, standingOf } from './giving.js';
import { keepSomebody } from './keep-somebody.js';
import { personWithin } from './people.queries.js';
import { PersonChanges } from './person-changes.service.js';
import type { DutyDto, EditPersonDto } from './identity.dto.js';
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

/** Who works here: invited by mail or by hand, given duties and sites, signed out, let go. */
@Injectable()
export class PeopleService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
    private readonly changes: PersonChanges,
  ) {}

  /** Writes a person who has a password already, such as the founder of a house. */
  async add(person: NewPerson, within?: Tx): Promise<number> {
    const [password, pin] = await Promise.all([secretHash(person.password), person.pin ? secretHash(person.pin) : null]);
    const write = async (tx: Tx) => {
      const done = await insert(tx, 'person', {
        name: person.name,
        email: person.email.toLowerCase(),
        password_hash: password,
        badge_code: person.badge ?? (await badge(tx)),
        pin_hash: pin,
        duties: JSON.stringify(person.duties),
        sees_costs: person.seesCosts ? 1 : 0,
      });
      await joinSites(tx, done, person.siteIds);
      return done;
    };
    return within ? write(within) : inTransaction(this.source, write);
  }

  /** Makes a person. With a mail address they are sent a link by which they choose a password; without one they come in by badge and PIN. */
  invite(act: Act, input: EditPersonDto): Promise<{ id: number }> {
    return this.commands.run(act, 'person.invite', input, async (tx) => {
      const email = input.email.trim().toLowerCase();
      if (email && (await one(tx, 'SELECT id FROM person WHERE email = ?', [email])))
        throw badForm({ email: `${email} belongs to somebody here already` });
      mustFit(input);
      mustBeTheirsToGive(act.person, await dutyMatrix(tx), { duties: [], seesCosts: false, siteIds: [] }, input);
      const done = await insert(tx, 'person', {
        name: input.name.trim(),
        email: email || null,
        password_hash: null,
        badge_code: await badge(tx),
        duties: JSON.stringify(input.duties),
        sees_costs: input.seesCosts ? 1 : 0,
        usual_site_id: input.usualSiteId ?? null,
        usual_duty: input.usualDuty ?? null,
      });
      await joinSites(tx, done, input.siteIds);
      if (email) await this.outbox.send(tx, `mail:${email}`, 'mail.door', { personId: done, purpose: 'invite' });
      await this.record(tx, act, `${input.name.trim()} ${email ? 'invited' : 'set up'}`, input.siteIds);
      return { id: done };
    });
  }

  /**
   * Changes a person. What concerns who they are and what they may do counts at once where an owner changes it, or somebody
   * changes their own; otherwise it is asked for. Who has left is signed out everywhere.
   */
  edit(act: Act, id: number, version: number, input: EditPersonDto): Promise<void> {
    return this.commands.run(act, 'person.edit', { id, version, input }, async (tx) => {
      const person = await personWithin(tx, act.person, id, 'lock');
      mustMatch(person.version, version);
      mustFit(input, person.usual_site_id);
      const email = input.email.trim().toLowerCase();
      if (!email && person.email && person.password_hash)
        throw badForm({ email: `${person.name} signs in with it. Type another, or leave it` });
      if (email && (await one(tx, 'SELECT id FROM person WHERE email = ? AND id <> ?', [email, id])))
        throw badForm({ email: `${email} belongs to somebody else here` });
      const [matrix, before] = [await dutyMatrix(tx), standingOf(person)];
      mustBeTheirsToGive(act.person, matrix, before, input);
      const wanted = {
        email: email === (person.email ?? '') ? null : email,
        duties: sameSet(before.duties, input.duties) ? null : input.duties,
      };
      if (wanted.email !== null || input.active !== (person.active === 1)) mustStandAbove(act.person, matrix, before);
      await update(
        tx,
        'person',
        { id },
        {
          name: input.name.trim(),
          sees_costs: input.seesCosts ? 1 : 0,
          usual_site_id: input.usualSiteId ?? null,
          usual_duty: input.usualDuty ?? null,
          active: input.active ? 1 : 0,
          version: NEXT,
        },
      );
      // Sites that the person who changes this cannot see stay as they are.
      await remove(tx, 'person_site', { person_id: id, site_id: [0, ...act.person.siteIds] });
      await joinSites(tx, id, input.siteIds);
      if (!input.active) await endSessions(tx, id);
      if (wanted.email !== null || wanted.duties) {
        const isSettled = act.person.isOwner || act.person.id === id || (person.password_hash === null && person.pin_hash === null);
        await (isSettled ? this.changes.make(tx, person, wanted) : this.changes.ask(tx, act, person, wanted));
      }
      await keepSomebody(tx);
      await this.record(tx, act, input.active ? `${input.name.trim()} changed` : `${input.name.trim()} has left`, input.siteIds);
    });
  }

  /** Mails the invitation again, or a link for a new password where they have one. */
  remind(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'person.remind', { id }, async (tx) => {
      const person = await personWithin(tx, act.person, id);
      if (person.active === 0) throw notFound('That person');
      if (!person.email) throw badState(`${person.name} has no mail address here. Hand over a link or a PIN`);
      await this.outbox.send(tx, `mail:${person.email}`, 'mail.door', { personId: id, purpose: person.password_hash ? 'reset' : 'invite' });
      await this.record(tx, act, `Link sent to ${person.name}`);
    });
  }

  /** Ends every session of a person, on every device, at once. */
  signOut(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'person.sign-out', { id }, async (tx) => {
      const person = await personWithin(tx, act.person, id);
      await endSessions(tx, id);
      await this.record(tx, act, `${person.name} signed out everywhere`);
    });
  }

  async duties(): Promise<DutyDto[]> {
    const matrix = await dutyMatrix(this.source);
    return DUTIES.map((duty) => ({ duty, rights: [...(matrix[duty] ?? DUTY_RIGHTS[duty])], adjusted: matrix[duty] !== undefined }));
  }

  /** Adjusts what a duty allows, at every site: an owner's to do. The owner keeps everything, so that nobody locks the house from inside. */
  setRight(act: Act, duty: string, right: string, allowed: boolean): Promise<void> {
    return this.commands.run(act, 'duty', { duty, right, allowed }, async (tx) => {
      const known = DUTIES.find((d): d is Duty => d === duty);
      if (!act.person.isOwner) throw new Problem(403, 'not-allowed', 'What a duty allows counts for everybody. Ask an owner to change it');
      if (!known) throw notFound(`A duty called ${duty.slice(0, 20)}`);
      if (known === 'owner') throw badState('The owner keeps every right');
      if (!Object.hasOwn(RIGHTS, right)) throw notFound(`A right called ${right.slice(0, 20)}`);
      await holdList(tx, 'duties');
      const matrix = await dutyMatrix(tx);
      const others = (matrix[known] ?? DUTY_RIGHTS[known]).filter((r) => r !== right);
      await keepSetting(tx, 'duties', { ...matrix, [known]: allowed ? [...others, right] : others });
      await keepSomebody(tx);
      await this.record(tx, act, `Rights of the duty ${known} changed`);
    });
  }

  async isFirstRun(): Promise<boolean> {
    return (await one(this.source, 'SELECT id FROM person LIMIT 1')) === undefined;
  }

  /** Somebody whom this person may set up: who works at one of their sites, or at none; an owner reaches everybody. */
  /** Noted at the first of the person's sites, for those who work there. */
  private record(tx: Tx, act: Act, title: string, siteIds: readonly number[] = []): Promise<number> {
    return this.activity.record(tx, act, { kind: 'person', glyph: 'full', title, siteId: siteIds[0] ?? null });
  }
}

/** Whoever makes a site works there too; otherwise nobody could see it. */
export async function joinSites(tx: Tx, personId: number, siteIds: readonly number[]): Promise<void> {
  await insertMany(
    tx,
    'person_site',
    ['person_id', 'site_id'],
    siteIds.map((site) => [personId, site]),
  );
}

export const endSessions = (tx: Pick<Tx, 'query'>, personId: number) =>
  tx.query('UPDATE session SET ended_at = UTC_TIMESTAMP(3) WHERE person_id = ? AND ended_at IS NULL', [personId]);

/** A badge opens with a PIN of a few digits: its own number is not one that can be counted up to. */
async function badge(tx: Tx): Promise<string> {
  for (;;) {
    const code = `V-${randomInt(10_000_000, 100_000_000)}`;
    if (!(await one(tx, 'SELECT id FROM person WHERE badge_code = ?', [code]))) return code;
  }
}

function mustFit(input: EditPersonDto, usualSiteId: number | null = null): void {
  // A usual site that whoever changes this cannot see stays.
  if (input.usualSiteId && input.usualSiteId !== usualSiteId && !input.siteIds.includes(input.usualSiteId))
    throw badForm({ usualSiteId: 'The usual site is one of the person’s sites' });
  if (input.usualDuty && !input.duties.includes(input.usualDuty))
    throw badForm({ usualDuty: 'The usual duty is one of the person’s duties' });
}

const sameSet = (a: readonly string[], b: readonly string[]) => a.length === new Set(b).size && a.every((x) => b.includes(x));
