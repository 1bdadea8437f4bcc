import { Injectable } from '@nestjs/common';
import { answersFor, commandAfter, type FloorCommand, type FloorCommandKind, letGoWords, type QuestionAnswer } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  CommandLog,
  inTransaction,
  mustBeAt,
  notFound,
  NOW,
  one,
  parsed,
  type Person,
  Problem,
  rows,
  update,
} from '../platform/index.js';
import { FloorCommands } from './floor-commands.js';
import type { FloorAnswerDto, QuestionDto } from './floor.dto.js';

const SAYS: Readonly<Record<QuestionAnswer, string>> = {
  again: 'Try it again now',
  apart: 'Set the goods apart',
  'let-go': 'Let it go',
};
const MOST = 100;

interface Row extends Omit<QuestionDto, 'choices' | 'mine'> {
  personId: number;
  command: unknown;
}

/** What came too late to be booked: kept until somebody says what is to become of it. Nothing is dropped without a word. */
@Injectable()
export class Questions {
  constructor(
    private readonly source: DataSource,
    private readonly log: CommandLog,
    private readonly commands: FloorCommands,
    private readonly activity: ActivityService,
  ) {}

  /** Whether a command has become a question already. */
  async has(id: string): Promise<boolean> {
    return (await one(this.source, 'SELECT id FROM floor_question WHERE id = ?', [id])) !== undefined;
  }

  raise(act: Act, command: FloorCommand, madeAt: Date, problem: { title: string; detail: string }): Promise<void> {
    return inTransaction(this.source, async (tx) => {
      const about = await this.commands.about(tx, command);
      const made = await tx.query<{ affectedRows: number }>(
        `INSERT IGNORE INTO floor_question (id, kind, command, site_id, document, person_id, device_id, made_at, what, title, detail) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        [
          command.id,
          command.kind,
          JSON.stringify(command),
          about.siteId,
          about.document,
          act.person.id,
          act.deviceId,
          madeAt,
          about.what.slice(0, 200),
          problem.title.slice(0, 200),
          problem.detail.slice(0, 400),
        ],
      );
      if (made.affectedRows === 0) return;
      await this.activity.record(tx, act, {
        kind: 'late',
        glyph: 'blocked',
        title: `Came too late: ${about.what}`,
        detail: problem.detail,
        document: about.document,
        siteId: about.siteId,
      });
    });
  }

  /** The open ones that a person made or may answer, oldest first. */
  async open(person: Person): Promise<QuestionDto[]> {
    const found = await rows<Row>(
      this.source,
      `SELECT q.id, q.kind, q.what, q.title, q.detail, q.document, q.site_id AS siteId, p.name AS who, q.person_id AS personId, q.made_at AS madeAt, q.command
       FROM floor_question q JOIN person p ON p.id = q.person_id WHERE q.answered_at IS NULL AND (q.person_id = ? OR q.site_id IN (?)) ORDER BY q.raised_at LIMIT ${MOST}`,
      [person.id, [0, ...person.siteIds]],
    );
    return found
      .filter((q) => q.personId === person.id || this.commands.mayAnswer(person, q.kind as FloorCommandKind))
      .map(({ personId, command, ...q }) => ({
        ...q,
        mine: personId === person.id,
        choices: answersFor(parsed<FloorCommand>(command)).map((answer) => ({ answer, says: saysOf(answer, q.kind as FloorCommandKind) })),
      }));
  }

  /** Answers one: the command that follows is carried out under the act's own key, all of it or nothing. */
  answer(act: Act, id: string, answer: QuestionAnswer): Promise<FloorAnswerDto> {
    return this.log.run(act, 'question.answer', { id, answer }, async (tx) => {
      const found = await one<{
        command: unknown;
        site_id: number | null;
        person_id: number;
        what: string;
        document: string | null;
        answer: string | null;
        made_at: Date;
      }>(tx, 'SELECT command, site_id, person_id, what, document, answer, made_at FROM floor_question WHERE id = ? FOR UPDATE', [id]);
      if (!found) throw notFound('That question');
      if (found.site_id !== null) mustBeAt(act.person, found.site_id);
      const command = parsed<FloorCommand>(found.command);
      if (found.person_id !== act.person.id && !this.commands.mayAnswer(act.person, command.kind))
        throw new Problem(403, 'not-allowed', 'This is for whoever did it, or somebody with that duty');
      if (found.answer !== null) throw new Problem(409, 'state', 'Somebody has answered this already');
      if (!answersFor(command).includes(answer)) throw badForm({ answer: 'That is no answer to this' });
      const next = commandAfter(command, answer, act.key);
      // The goods were moved when it was done, not when somebody answers for it.
      const then = { ...act, madeAt: new Date(found.made_at) };
      const done = next ? await this.commands.work(tx, then, next) : { activityId: await this.letGo(tx, act, found, command.kind) };
      await update(tx, 'floor_question', { id }, { answer, answered_by: act.person.id, answered_at: NOW });
      return done;
    });
  }

  private letGo(
    tx: Parameters<ActivityService['record']>[0],
    act: Act,
    found: { what: string; site_id: number | null; document: string | null },
    kind: FloorCommandKind,
  ): Promise<number> {
    return this.activity.record(tx, act, {
      kind: 'let-go',
      glyph: 'undo',
      title: `Let go: ${found.what}`,
      detail: letGoWords(kind) ?? '',
      document: found.document,
      siteId: found.site_id,
    });
  }
}

const saysOf = (answer: QuestionAnswer, kind: FloorCommandKind): string =>
  answer === 'let-go' ? `${SAYS[answer]}. ${letGoWords(kind) ?? ''}`.trim() : SAYS[answer];
