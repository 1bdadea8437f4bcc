import { Inject, Injectable } from '@nestjs/common';
import { wantsAnAnswer } from '@vectrum/core/scan';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { SessionService } from '../identity/index.js';
import { type Act, clockOf, LOGGER, one, Problem } from '../platform/index.js';
import type { FloorAnswerDto, FloorPostDto } from './floor.dto.js';
import { FloorCommands } from './floor-commands.js';
import { Questions } from './questions.service.js';

/** How long after a session ran out its person may still have scanned on, while the phone had no network to be told so. */
const GRACE_HOURS = 24;

/** Takes in what a device's queue sends: under whose hands made it, and as a question where it comes too late. */
@Injectable()
export class FloorPost {
  constructor(
    private readonly source: DataSource,
    private readonly commands: FloorCommands,
    private readonly questions: Questions,
    private readonly sessions: SessionService,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  async post(sender: Act, body: FloorPostDto): Promise<FloorAnswerDto> {
    const command = this.commands.read(body.command);
    const madeAt = serverTime(sender, clockOf(body.madeAt) ?? new Date());
    if (body.late && (await this.questions.has(command.id))) throw kept('This waits for an answer already');
    const act = await this.actOf(sender, body.madeBy, madeAt);
    try {
      return await this.commands.run(act, command);
    } catch (thrown) {
      if (!body.late || !isFinal(thrown) || !wantsAnAnswer(command.kind)) throw thrown;
      if (!(thrown instanceof Problem)) this.log.error({ err: thrown, command: command.kind }, 'a late command failed');
      const detail = thrown instanceof Problem ? thrown.detail : 'It could not be booked';
      await this.questions.raise(act, command, madeAt, {
        title: (thrown instanceof Problem ? thrown.extra.title : null) ?? 'Not booked',
        detail,
      });
      throw kept(detail);
    }
  }

  /**
   * The act of whoever made the command. Another person than the sender must have been signed in on this very device when
   * it was made: the device tells whose hands it was in, and the sessions bear it out.
   */
  private async actOf(sender: Act, madeBy: number, madeAt: Date): Promise<Act> {
    const act = { ...sender, deviceAt: sender.deviceAt && madeAt, madeAt };
    if (madeBy === sender.person.id) return act;
    const was = await one(
      this.source,
      `SELECT 1 FROM session WHERE person_id = ? AND device_id = ? AND created_at <= ? AND COALESCE(ended_at, expires_at + INTERVAL ? HOUR) >= ? LIMIT 1`,
      [madeBy, sender.deviceId ?? 0, madeAt, GRACE_HOURS, madeAt],
    );
    const person = was ? await this.sessions.person(madeBy) : undefined;
    if (!person) throw new Problem(403, 'made-by', 'Whoever did this must sign in on this device to send it');
    return { ...act, person, sentBy: sender.person.id };
  }
}

/** What the server's clock said when the device's said `made`: devices' clocks may be wrong, but not about how long ago. */
function serverTime(sender: Act, made: Date): Date {
  const now = Date.now();
  const ago = sender.deviceAt ? sender.deviceAt.getTime() - made.getTime() : 0;
  return new Date(now - Math.max(0, ago));
}

/** Whether trying again by itself would not help. */
const isFinal = (thrown: unknown): boolean =>
  !(thrown instanceof Problem) || (thrown.status !== 503 && thrown.status !== 401 && thrown.code !== 'made-by');

const kept = (detail: string) => new Problem(409, 'late', detail, { title: 'Kept as a question' });
