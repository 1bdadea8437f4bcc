import { randomInt } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badState, CommandLog, NOW, Problem, type Row, type Tx, update } from '../platform/index.js';
import { DoorService } from './door.service.js';
import { dutyMatrix } from './duty-matrix.js';
import { mustStandAbove, standingOf } from './giving.js';
import { personWithin } from './people.queries.js';
import { secretHash } from './secrets.js';

const PIN_DIGITS = 6;

/**
 * The first key to the house, given from hand to hand: a link by which a password or PIN is chosen, or a PIN for the badge. Whoever has
 * a key already gets a new one from an owner alone, since it is as good as being them.
 */
@Injectable()
export class FirstKeys {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly door: DoorService,
    private readonly activity: ActivityService,
  ) {}

  /** A link to hand over; it works as one that was mailed does. It is told once and kept nowhere. */
  link(act: Act, id: number): Promise<{ link: string }> {
    return this.once(act, 'person.link', id, async (tx, person) => {
      await this.record(tx, act, `Link for ${person.name} made to hand over`);
      return { link: await this.door.linkFor(tx, id, person.password_hash ? 'reset' : 'invite') };
    });
  }

  /** A PIN to the person's badge, which is told once; what they had before is void, and they are signed out. */
  async pin(act: Act, id: number): Promise<{ pin: string }> {
    const pin = String(randomInt(10 ** PIN_DIGITS)).padStart(PIN_DIGITS, '0');
    const hash = await secretHash(pin);
    return this.once(act, 'person.pin', id, async (tx, person) => {
      await update(tx, 'person', { id }, { pin_hash: hash });
      await update(tx, 'session', { person_id: id, ended_at: null }, { ended_at: NOW });
      await this.record(tx, act, `New PIN for ${person.name}`);
      return { pin };
    });
  }

  /** What is told must not be kept with the answers of commands: asked again under the same key, it is told no more. */
  private async once<T extends object>(
    act: Act,
    name: string,
    id: number,
    work: (tx: Tx, person: Row<'person'>) => Promise<T>,
  ): Promise<T> {
    let told: T | undefined;
    await this.commands.run(act, name, { id }, async (tx) => {
      const person = await personWithin(tx, act.person, id, 'lock');
      if (person.active === 0) throw badState(`${person.name} has left`);
      mustStandAbove(act.person, await dutyMatrix(tx), standingOf(person));
      const hasKey = person.password_hash !== null || person.pin_hash !== null;
      if (hasKey && !act.person.isOwner)
        throw new Problem(403, 'not-allowed', `${person.name} has a password or PIN already. Only an owner gives out another`);
      told = await work(tx, person);
    });
    if (!told) throw badState('It was told already, and is kept nowhere. Make another');
    return told;
  }

  private async record(tx: Tx, act: Act, title: string): Promise<void> {
    await this.activity.record(tx, act, { kind: 'person', glyph: 'half', title });
  }
}
