import { Injectable } from '@nestjs/common';
import type { FloorCommand, FloorCommandKind } from '@vectrum/core/scan';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import type { Right } from '../identity/index.js';
import { type Act, badForm, CommandLog, fieldsOf, mustBeAt, type Person, Problem, type Tx } from '../platform/index.js';
import type { FloorAnswerDto } from './floor.dto.js';

export type CommandOf<K extends FloorCommandKind> = Extract<FloorCommand, { kind: K }>;

/** How one kind of command is checked and carried out. */
export interface CommandHandler<K extends FloorCommandKind> {
  kind: K;
  /** Who may. */
  right: Right;
  /** What it must look like. */
  dto: new () => CommandOf<K>;
  /** Does it, in a transaction of its own. Loads and locks only what it needs. */
  work(tx: Tx, act: Act, command: CommandOf<K>): Promise<FloorAnswerDto>;
  /** What it is about, for whoever must answer for it later. */
  about(tx: Tx, command: CommandOf<K>): Promise<About>;
}

export interface About {
  /** How many of what, where. */
  what: string;
  siteId: number | null;
  document: string | null;
}

type AnyHandler = CommandHandler<FloorCommandKind>;

/** The one door for commands of the floor. Each module says how its own are carried out. */
@Injectable()
export class FloorCommands {
  private readonly handlers = new Map<FloorCommandKind, AnyHandler>();

  constructor(private readonly log: CommandLog) {}

  register<K extends FloorCommandKind>(handler: CommandHandler<K>): void {
    this.handlers.set(handler.kind, handler as unknown as AnyHandler);
  }

  /** The shapes of all commands, by kind. */
  shapes(): { kind: FloorCommandKind; dto: new () => FloorCommand }[] {
    return [...this.handlers.values()].map(({ kind, dto }) => ({ kind, dto }));
  }

  /** Who may post each kind. */
  rights(): ReadonlyMap<FloorCommandKind, Right> {
    return new Map([...this.handlers.values()].map((h) => [h.kind, h.right]));
  }

  /** A command of known kind and proper form; throws where it is none. */
  read(given: object): FloorCommand {
    const kind = (given as { kind?: unknown }).kind;
    const handler = typeof kind === 'string' ? this.handlers.get(kind as FloorCommandKind) : undefined;
    if (!handler) throw badForm({ 'command.kind': 'There is no such command of the floor' });
    const command = plainToInstance(handler.dto, given);
    const faults = validateSync(command, { whitelist: true, forbidNonWhitelisted: true });
    if (faults.length > 0) throw badForm(fieldsOf(faults, 'command'));
    return command;
  }

  /** Carries a command out, once, under its own id. */
  run(act: Act, command: FloorCommand): Promise<FloorAnswerDto> {
    if (act.key !== command.id.toLowerCase())
      throw new Problem(400, 'idempotency-key', 'The Idempotency-Key is the id of the command. Send the same in both');
    return this.log.run(act, command.kind, command, (tx) => this.work(tx, act, command));
  }

  /** Carries a command out in a transaction that is open already. */
  work(tx: Tx, act: Act, command: FloorCommand): Promise<FloorAnswerDto> {
    const handler = this.handlerOf(command);
    mustHave(act.person, handler.right);
    return handler.work(tx, act, command);
  }

  about(tx: Tx, command: FloorCommand): Promise<About> {
    return this.handlerOf(command).about(tx, command);
  }

  mayAnswer(person: Person, kind: FloorCommandKind): boolean {
    const right = this.handlers.get(kind)?.right;
    return right !== undefined && (right === 'signed-in' || person.rights.has(right));
  }

  private handlerOf(command: FloorCommand): AnyHandler {
    const handler = this.handlers.get(command.kind);
    if (!handler) throw new Error(`Nobody carries out ${command.kind}`);
    return handler;
  }
}

function mustHave(person: Person, right: Right): void {
  if (right !== 'signed-in' && !person.rights.has(right))
    throw new Problem(403, 'not-allowed', `This needs the duty of ${right}. Ask whoever sets up people`);
}

/** The site of what a command is about, where the person has business there. */
export function siteFor(act: Act, siteId: number | null | undefined): number {
  mustBeAt(act.person, siteId ?? 0);
  return siteId ?? 0;
}
