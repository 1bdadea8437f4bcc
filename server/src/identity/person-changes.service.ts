import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badState,
  CommandLog,
  find,
  Mailer,
  NEXT,
  notFound,
  NOW,
  one,
  Outbox,
  parsed,
  Problem,
  remove,
  type Row,
  type Tx,
  update,
} from '../platform/index.js';
import { dutyMatrix } from './duty-matrix.js';
import { isTheirsToGive, standingOf, standsAbove } from './giving.js';
import { keepSomebody } from './keep-somebody.js';
import { SessionService } from './session.service.js';
import { setName, type Duty } from './duties.js';

/** A new address, new duties, or both. */
export interface AskedChange {
  email: string | null;
  duties: readonly Duty[] | null;
}

/**
 * Whoever has somebody's mail can have their password, and duties are what they answer for: a change of either is asked for,
 * and counts when the person or an owner agrees. What an owner changes counts at once; the address before is told of it.
 */
@Injectable()
export class PersonChanges implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly activity: ActivityService,
    private readonly sessions: SessionService,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.person-change', ({ id, payload }) =>
      this.mailer.send({
        id: `person-change-${id}`,
        to: String(payload['to']),
        subject: String(payload['subject']),
        text: String(payload['text']),
        attachments: [],
      }),
    );
  }

  /** Keeps what was asked, in place of what was asked before, and tells the person where they can be reached now. */
  async ask(tx: Tx, act: Act, person: { id: number; name: string; email: string | null }, wanted: AskedChange): Promise<void> {
    await tx.query('REPLACE INTO person_change (person_id, email, duties, asked_by) VALUES (?, ?, ?, ?)', [
      person.id,
      wanted.email,
      wanted.duties ? JSON.stringify(wanted.duties) : null,
      act.person.id,
    ]);
    const what = [
      ...(wanted.email !== null ? [`your e-mail address here should become ${wanted.email}`] : []),
      ...(wanted.duties ? [`your duties should be: ${wanted.duties.map(setName).join(', ') || 'none'}`] : []),
    ].join(', and ');
    await this.tell(
      tx,
      person.email,
      'A change that waits for you',
      `${person.name},\n\n${act.person.name} asks that ${what}. Sign in and answer on your own page; until then nothing changes.\n`,
    );
  }

  /** Changes the address or duties of a person now. Links that were mailed to the address before are void, and it is told. */
  async make(tx: Tx, person: { id: number; name: string; email: string | null }, wanted: AskedChange): Promise<void> {
    if (wanted.email !== null) {
      if (wanted.email && (await one(tx, 'SELECT id FROM person WHERE email = ? AND id <> ?', [wanted.email, person.id])))
        throw badState(`${wanted.email} belongs to somebody else here. Refuse this change`);
      await update(tx, 'person_token', { person_id: person.id, used_at: null }, { used_at: NOW });
      await this.tell(
        tx,
        person.email,
        'Your e-mail address was changed',
        `${person.name},\n\nyour e-mail address here is ${wanted.email || 'known no more'} from now on. If that is not right, tell an owner of the house at once.\n`,
      );
    }
    await update(
      tx,
      'person',
      { id: person.id },
      {
        ...(wanted.email !== null ? { email: wanted.email || null } : {}),
        ...(wanted.duties ? { duties: JSON.stringify(wanted.duties) } : {}),
        version: NEXT,
      },
    );
  }

  /** Agrees to what was asked, or refuses it: the person themself or an owner; whoever asked may take it back. */
  answer(act: Act, personId: number, agree: boolean): Promise<void> {
    return this.commands.run(act, 'person.answer', { personId, agree }, async (tx) => {
      const person = await find(tx, 'person', { id: personId }, 'lock');
      const asked = await find(tx, 'person_change', { person_id: personId }, 'lock');
      if (!person || !asked) throw notFound('A change that waits for this person');
      const isTheirs = act.person.id === personId || act.person.isOwner;
      if (!isTheirs && (agree || asked.asked_by !== act.person.id))
        throw new Problem(403, 'not-allowed', 'Only the person themself or an owner agrees to this. Ask one of them');
      if (agree && !act.person.isOwner) await this.mustStillGive(tx, asked, person);
      await remove(tx, 'person_change', { person_id: personId });
      if (agree) await this.make(tx, person, { email: asked.email, duties: asked.duties === null ? null : parsed<Duty[]>(asked.duties) });
      await keepSomebody(tx);
      const title = agree ? `Change of ${person.name} agreed` : `Change of ${person.name} refused`;
      await this.activity.record(tx, act, { kind: 'person', glyph: agree ? 'full' : 'empty', title });
    });
  }

  /** Whoever asked may have lost meanwhile what they asked for another to have. */
  private async mustStillGive(tx: Tx, asked: Row<'person_change'>, person: Row<'person'>): Promise<void> {
    const asker = await this.sessions.person(asked.asked_by);
    const before = standingOf(person);
    const after = { ...before, duties: asked.duties === null ? before.duties : parsed<Duty[]>(asked.duties) };
    const matrix = await dutyMatrix(tx);
    const can = asker && isTheirsToGive(asker, matrix, before, after) && (asked.email === null || standsAbove(asker, matrix, before));
    if (!can) throw badState('Whoever asked for this may not ask for it any more. Refuse it, or ask an owner');
  }

  /** Whoever has no address is told by whoever changes it. */
  private async tell(tx: Tx, to: string | null, subject: string, text: string): Promise<void> {
    if (to) await this.outbox.send(tx, `mail:${to}`, 'mail.person-change', { to, subject, text });
  }
}
