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
  parsed,
  remove,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { keepSetting } from '../settings/index.js';
import { dutyMatrix } from './duty-matrix.js';
import { DUTIES, DUTY_RIGHTS, type Duty, RIGHTS, rightsOf } from './duties.js';
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

/** Who works here: invited by mail, given duties and sites, signed out, let go. */
@Injectable()
export class PeopleService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
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

  /** Makes a person and mails them a link by which they choose a password. */
  invite(act: Act, input: EditPersonDto): Promise<{ id: number }> {
    return this.commands.run(act, 'person.invite', input, async (tx) => {
      const email = input.email.trim().toLowerCase();
      if (await one(tx, 'SELECT id FROM person WHERE email = ?', [email]))
        throw badForm({ email: `${email} belongs to somebody here already` });
      mustKnow(act, input);
      const done = await insert(tx, 'person', {
        name: input.name.trim(),
        email,
        password_hash: null,
        badge_code: await badge(tx),
        duties: JSON.stringify(input.duties),
        sees_costs: input.seesCosts ? 1 : 0,
        usual_site_id: input.usualSiteId ?? null,
        usual_duty: input.usualDuty ?? null,
      });
      await joinSites(tx, done, input.siteIds);
      await this.outbox.send(tx, `mail:${email}`, 'mail.door', { personId: done, purpose: 'invite' });
      await this.record(tx, act, `${input.name.trim()} invited`);
      return { id: done };
    });
  }

  /** Changes a person. Nobody can be left without anyone who sets up people; who has left is signed out everywhere. */
  edit(act: Act, id: number, version: number, input: EditPersonDto): Promise<void> {
    return this.commands.run(act, 'person.edit', { id, version, input }, async (tx) => {
      const person = await one<{ version: number; email: string }>(tx, 'SELECT version, email FROM person WHERE id = ? FOR UPDATE', [id]);
      if (!person) throw notFound('That person');
      mustMatch(person.version, version);
      mustKnow(act, input);
      const email = input.email.trim().toLowerCase();
      if (await one(tx, 'SELECT id FROM person WHERE email = ? AND id <> ?', [email, id]))
        throw badForm({ email: `${email} belongs to somebody else here` });
      await update(
        tx,
        'person',
        { id },
        {
          name: input.name.trim(),
          email,
          duties: JSON.stringify(input.duties),
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
      await this.mustKeepSetUp(tx);
      await this.record(tx, act, input.active ? `${input.name.trim()} changed` : `${input.name.trim()} has left`);
    });
  }

  /** Mails the invitation again, or a link for a new password where they have one. */
  remind(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'person.remind', { id }, async (tx) => {
      const person = await one<{ name: string; email: string; password_hash: string | null; active: number }>(
        tx,
        'SELECT name, email, password_hash, active FROM person WHERE id = ?',
        [id],
      );
      if (!person || person.active === 0) throw notFound('That person');
      await this.outbox.send(tx, `mail:${person.email}`, 'mail.door', { personId: id, purpose: person.password_hash ? 'reset' : 'invite' });
      await this.record(tx, act, `Link sent to ${person.name}`);
    });
  }

  /** Ends every session of a person, on every device, at once. */
  signOut(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'person.sign-out', { id }, async (tx) => {
      const person = await one<{ name: string }>(tx, 'SELECT name FROM person WHERE id = ?', [id]);
      if (!person) throw notFound('That person');
      await endSessions(tx, id);
      await this.record(tx, act, `${person.name} signed out everywhere`);
    });
  }

  async duties(): Promise<DutyDto[]> {
    const matrix = await dutyMatrix(this.source);
    return DUTIES.map((duty) => ({ duty, rights: [...(matrix[duty] ?? DUTY_RIGHTS[duty])], adjusted: matrix[duty] !== undefined }));
  }

  /** Adjusts what a duty allows. The owner keeps everything, so that nobody locks the house from inside. */
  setRight(act: Act, duty: string, right: string, allowed: boolean): Promise<void> {
    return this.commands.run(act, 'duty', { duty, right, allowed }, async (tx) => {
      const known = DUTIES.find((d): d is Duty => d === duty);
      if (!known) throw notFound(`A duty called ${duty.slice(0, 20)}`);
      if (known === 'owner') throw badState('The owner keeps every right');
      if (!Object.hasOwn(RIGHTS, right)) throw notFound(`A right called ${right.slice(0, 20)}`);
      await holdList(tx, 'duties');
      const matrix = await dutyMatrix(tx);
      const others = (matrix[known] ?? DUTY_RIGHTS[known]).filter((r) => r !== right);
      await keepSetting(tx, 'duties', { ...matrix, [known]: allowed ? [...others, right] : others });
      await this.mustKeepSetUp(tx);
      await this.record(tx, act, `Rights of the duty ${known} changed`);
    });
  }

  async isFirstRun(): Promise<boolean> {
    return (await one(this.source, 'SELECT id FROM person LIMIT 1')) === undefined;
  }

  private async mustKeepSetUp(tx: Tx): Promise<void> {
    const matrix = await dutyMatrix(tx);
    const people = await rows<{ duties: unknown }>(tx, 'SELECT duties FROM person WHERE active = 1 AND password_hash IS NOT NULL');
    if (people.some((p) => rightsOf(parsed<Duty[]>(p.duties), matrix).has('set-up'))) return;
    throw badState('Somebody must be left who can set up people. Give the duty to another first');
  }

  private record(tx: Tx, act: Act, title: string): Promise<number> {
    return this.activity.record(tx, act, { kind: 'person', glyph: 'full', title });
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

function mustKnow(act: Act, input: EditPersonDto): void {
  const far = input.siteIds.find((s) => !act.person.siteIds.includes(s));
  if (far !== undefined) throw badForm({ siteIds: 'You can set people up only for sites where you are set up yourself' });
  if (input.usualSiteId && !input.siteIds.includes(input.usualSiteId))
    throw badForm({ usualSiteId: 'The usual site is one of the person’s sites' });
  if (input.usualDuty && !input.duties.includes(input.usualDuty))
    throw badForm({ usualDuty: 'The usual duty is one of the person’s duties' });
  if (input.seesCosts && !act.person.seesCosts) throw badForm({ seesCosts: 'Only those who may see costs can let others see them' });
}
