import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { FloorCommand } from '@vectrum/core/scan';
import { type FloorAnswerDto, FloorCommands } from '../floor/index.js';
import type { Act } from '../platform/index.js';

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;

/** The hands of the demo's people: what they do goes through the floor's door like anybody's. */
@Injectable()
export class DemoHands {
  constructor(private readonly commands: FloorCommands) {}

  does(act: Act, command: WithoutId<FloorCommand>): Promise<FloorAnswerDto> {
    const id = randomUUID();
    return this.commands.run({ ...act, key: id }, { ...command, id });
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
