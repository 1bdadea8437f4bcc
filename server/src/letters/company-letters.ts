import { Injectable } from '@nestjs/common';
import { fill, isLetterName, LETTERS, type LetterName, templateFault } from '@vectrum/core/letters';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, find, insert, type Mail, Mailer, mustMatch, notFound, remove, update } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { htmlOf } from './html.js';
import type { LetterDto, WriteLetterDto } from './letters.dto.js';

type Values<K extends LetterName> = Record<Exclude<keyof (typeof LETTERS)[K]['values'], 'company'>, string>;

/** The letters that customers get: in the company's words where it has written some, and under its mark. */
@Injectable()
export class CompanyLetters {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly settings: SettingsService,
    private readonly activity: ActivityService,
    private readonly mailer: Mailer,
  ) {}

  async list(): Promise<LetterDto[]> {
    return Promise.all((Object.keys(LETTERS) as LetterName[]).map((name) => this.letter(name)));
  }

  async letter(name: LetterName): Promise<LetterDto> {
    const { label, when, values, ...standard } = LETTERS[name];
    const kept = await find(this.source, 'letter', { name });
    const { subject, body } = kept ?? standard;
    return {
      name,
      label,
      when,
      subject,
      body,
      isOwn: kept !== undefined,
      version: kept?.version ?? 0,
      values: Object.entries(values).map(([value, { says, example }]) => ({ name: value, says, example })),
    };
  }

  named(name: string): Promise<LetterDto> {
    if (!isLetterName(name)) throw notFound(`A letter called ${name.slice(0, 40)}`);
    return this.letter(name);
  }

  /** Keeps the company's words for a letter. Version 0 is the words that it came with. */
  write(act: Act, name: string, version: number, { subject, body }: WriteLetterDto): Promise<void> {
    return this.commands.run(act, 'letter.write', { name, version, subject, body }, async (tx) => {
      if (!isLetterName(name)) throw notFound(`A letter called ${name.slice(0, 40)}`);
      const known = Object.keys(LETTERS[name].values);
      const faults = { subject: templateFault(subject, known), body: templateFault(body, known) };
      if (faults.subject) throw badForm({ subject: faults.subject });
      if (faults.body) throw badForm({ body: faults.body });
      const kept = await find(tx, 'letter', { name }, 'lock');
      mustMatch(kept?.version ?? 0, version);
      if (kept) await update(tx, 'letter', { name }, { subject: subject.trim(), body: body.trim(), version: version + 1 });
      else await insert(tx, 'letter', { name, subject: subject.trim(), body: body.trim() });
      await this.say(tx, act, name, 'has new words');
    });
  }

  /** The words that it came with are its words again. */
  restore(act: Act, name: string): Promise<void> {
    return this.commands.run(act, 'letter.restore', { name }, async (tx) => {
      if (!isLetterName(name)) throw notFound(`A letter called ${name.slice(0, 40)}`);
      await remove(tx, 'letter', { name });
      await this.say(tx, act, name, 'has its first words again');
    });
  }

  /** Writes a letter to a customer and sends it. Throws where the mail server does not take it. */
  async send<K extends LetterName>(name: K, values: Values<K>, mail: Pick<Mail, 'id' | 'to' | 'attachments'>): Promise<void> {
    const [letter, head] = await Promise.all([this.letter(name), this.settings.letterhead()]);
    const all: Record<string, string> = { ...values, company: head.name };
    const text = fill(letter.body, all);
    await this.mailer.send({
      ...mail,
      subject: fill(letter.subject, all).replaceAll(/\s+/g, ' '),
      text: `${text}\n`,
      html: htmlOf(text, head),
      ...(head.mark ? { inline: [{ cid: 'mark', content: Buffer.from(head.mark.png) }] } : {}),
    });
  }

  private async say(tx: Parameters<ActivityService['record']>[0], act: Act, name: LetterName, detail: string): Promise<void> {
    await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: `Letter “${LETTERS[name].label}”`, detail });
  }
}
