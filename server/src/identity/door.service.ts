import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import {
  badForm,
  Config,
  find,
  inTransaction,
  Mailer,
  NOW,
  num,
  one,
  Outbox,
  type Person,
  Problem,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { newToken, secretHash, secretMatches, tokenHash } from './secrets.js';

type Purpose = 'invite' | 'reset';
const LASTS_HOURS: Readonly<Record<Purpose, number>> = { invite: 72, reset: 2 };
const MOST_RESETS_AN_HOUR = 4;

/** Passwords and PINs: chosen by a link in a mail, changed by their owner. */
@Injectable()
export class DoorService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
    private readonly config: Config,
    private readonly settings: SettingsService,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.door', ({ id, payload }) =>
      this.mail(id, Number(payload['personId']), payload['purpose'] === 'invite' ? 'invite' : 'reset'),
    );
  }

  /** Mails a link for a new password, where the address is somebody's. Whoever asks learns nothing of that. */
  async askReset(email: string): Promise<void> {
    await inTransaction(this.source, async (tx) => {
      const person = await one<{ id: number }>(
        tx,
        'SELECT id FROM person WHERE email = ? AND active = 1 AND password_hash IS NOT NULL FOR UPDATE',
        [email.trim().toLowerCase()],
      );
      if (!person) return;
      const asked = await one<{ n: string }>(
        tx,
        `SELECT COUNT(*) AS n FROM outbox WHERE receiver = ? AND kind = 'mail.door' AND created_at > UTC_TIMESTAMP(3) - INTERVAL 1 HOUR`,
        [`mail:${email.trim().toLowerCase()}`],
      );
      if (num(asked?.n) >= MOST_RESETS_AN_HOUR) return;
      await this.outbox.send(tx, `mail:${email.trim().toLowerCase()}`, 'mail.door', { personId: person.id, purpose: 'reset' });
    });
  }

  /** Who a link is for; refuses one that is spent or too old. */
  async whose(token: string): Promise<{ name: string; email: string; purpose: string }> {
    const found = await one<{ name: string; email: string | null; purpose: string }>(
      this.source,
      `SELECT p.name, p.email, t.purpose FROM person_token t JOIN person p ON p.id = t.person_id AND p.active = 1 WHERE t.token_hash = ? AND t.used_at IS NULL AND t.expires_at > UTC_TIMESTAMP(3)`,
      [tokenHash(token)],
    );
    if (!found) throw spent();
    return { ...found, email: found.email ?? '' };
  }

  /** Spends a link: the password is set, and with it a PIN for the floor where one is given. Ends every session the person had. */
  async choose(token: string, password: string | undefined, pin: string | undefined): Promise<void> {
    const [passwordHash, pinHash] = await Promise.all([password ? secretHash(password) : null, pin ? secretHash(pin) : null]);
    await inTransaction(this.source, async (tx) => {
      const found = await one<{ person_id: number; email: string | null }>(
        tx,
        'SELECT t.person_id, p.email FROM person_token t JOIN person p ON p.id = t.person_id WHERE t.token_hash = ? AND t.used_at IS NULL AND t.expires_at > UTC_TIMESTAMP(3) FOR UPDATE',
        [tokenHash(token)],
      );
      if (!found) throw spent();
      if (found.email !== null && !password) throw badForm({ password: 'A password has at least 10 characters' });
      if (found.email === null && !pin) throw badForm({ pin: 'Choose a PIN of 4 to 8 digits: with it and your badge you come in' });
      await update(tx, 'person_token', { person_id: found.person_id, used_at: null }, { used_at: NOW });
      await tx.query(
        'UPDATE person SET password_hash = COALESCE(?, password_hash), pin_hash = COALESCE(?, pin_hash) WHERE id = ? AND active = 1',
        [passwordHash, pinHash, found.person_id],
      );
      await update(tx, 'session', { person_id: found.person_id, ended_at: null }, { ended_at: NOW });
    });
  }

  /** Changes one's own password or PIN; the old password proves that it is them. Other devices are signed out. */
  async change(
    person: Person,
    own: { current: string; password?: string | undefined; pin?: string | undefined },
    sessionToken: string | undefined,
  ): Promise<void> {
    const kept = await find(this.source, 'person', { id: person.id });
    // Who comes in by badge alone proves it by the PIN, and has no use for a password.
    const what = kept?.password_hash ? 'password' : 'PIN';
    if (!(await secretMatches(kept?.password_hash ?? kept?.pin_hash ?? null, own.current)))
      throw badForm({ current: `This is not your ${what} now. Type it again` });
    if (own.password && !kept?.email)
      throw badForm({ password: 'Without a mail address here you come in by badge and PIN. Ask to have it written down' });
    const [passwordHash, pinHash] = await Promise.all([
      own.password ? secretHash(own.password) : null,
      own.pin ? secretHash(own.pin) : null,
    ]);
    await inTransaction(this.source, async (tx: Tx) => {
      await tx.query('UPDATE person SET password_hash = COALESCE(?, password_hash), pin_hash = COALESCE(?, pin_hash) WHERE id = ?', [
        passwordHash,
        pinHash,
        person.id,
      ]);
      if (passwordHash) {
        await tx.query('UPDATE session SET ended_at = UTC_TIMESTAMP(3) WHERE person_id = ? AND ended_at IS NULL AND token_hash <> ?', [
          person.id,
          sessionToken ? tokenHash(sessionToken) : '',
        ]);
      }
    });
  }

  /** An address by which a person chooses a password or PIN, once and for so long. Whoever has it is as good as them. */
  async linkFor(tx: Pick<Tx, 'query'>, personId: number, purpose: Purpose): Promise<string> {
    const token = newToken();
    await tx.query(
      'INSERT INTO person_token (token_hash, person_id, purpose, expires_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3) + INTERVAL ? HOUR)',
      [tokenHash(token), personId, purpose, LASTS_HOURS[purpose]],
    );
    const base = this.config.VECTRUM_URL ?? `http://127.0.0.1:${this.config.VECTRUM_PORT}`;
    return `${base.replace(/\/$/, '')}/welcome#${token}`;
  }

  /** The token is made as the mail goes out, so that it is kept nowhere but in the mail. */
  private async mail(outboxId: number, personId: number, purpose: Purpose): Promise<void> {
    const person = await one<{ name: string; email: string | null }>(
      this.source,
      'SELECT name, email FROM person WHERE id = ? AND active = 1',
      [personId],
    );
    if (!person?.email) return;
    const company = (await this.settings.get(this.source, 'companyName')) || 'the stores';
    const link = await this.linkFor(this.source, personId, purpose);
    await this.mailer.send({
      id: `door-${outboxId}`,
      to: person.email,
      subject: purpose === 'invite' ? `You are invited to ${company}` : `A new password for ${company}`,
      text:
        purpose === 'invite'
          ? `${person.name},\n\nsomebody at ${company} has set you up in Vectrum. Open this to choose a password; it works for three days:\n\n${link}\n`
          : `${person.name},\n\nopen this to choose a new password; it works for two hours:\n\n${link}\n\nIf you did not ask for it, leave it. Nothing has changed.\n`,
      attachments: [],
    });
  }
}

const spent = () => new Problem(403, 'sign-in', 'This link is spent or too old. Ask for another');
