import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { FloorCommand } from '@vectrum/core/scan';
import { type FloorAnswerDto, FloorCommands } from '../floor/index.js';
import type { Act } from '../platform/index.js';

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;

/** Seconds that a pair of hands takes for each act, as the demo's people work. */
const SECONDS: Readonly<Record<string, number>> = {
  receive: 75,
  store: 70,
  tote: 15,
  pick: 40,
  short: 60,
  'set-down': 50,
  pack: 35,
  'close-parcel': 80,
  tally: 5,
  'tally-bin': 2,
};
const USUAL_SECONDS = 60;
const SHIFT_MS = 4 * 3_600_000;

/**
 * The hands of the demo's people: what they do goes through the floor's door like anybody's. Their phones' clocks tell of a shift that
 * began four hours ago, so that the house has a pace to measure.
 */
@Injectable()
export class DemoHands {
  private readonly clocks = new Map<number, number>();

  constructor(private readonly commands: FloorCommands) {}

  does(act: Act, command: WithoutId<FloorCommand>): Promise<FloorAnswerDto> {
    const id = randomUUID();
    return this.commands.run({ ...act, key: id, deviceAt: this.next(act.person.id, command.kind) }, { ...command, id });
  }

  private next(personId: number, kind: string): Date {
    const now = Date.now();
    const at = Math.min(now, (this.clocks.get(personId) ?? now - SHIFT_MS) + (SECONDS[kind] ?? USUAL_SECONDS) * 1000);
    this.clocks.set(personId, at);
    return new Date(at);
  }
}

/** Goods against a line of an order, counted and right, as a receiver books most of them in. */
export const asOrdered = {
  kind: 'receive',
  lot: null,
  expires: null,
  how: 'scanned',
  as: 'ordered',
  condition: 'good',
  reason: null,
} as const;
