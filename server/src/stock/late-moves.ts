import { Injectable } from '@nestjs/common';
import type { Movement } from '@vectrum/core/ledger';
import type { Act, Tx } from '../platform/index.js';

/** A movement that is booked beside those that are told late, and what for. */
export interface Beside {
  movement: Movement;
  document: string;
  reason: string;
}
/** What must be booked beside movements that are told later than they were made. */
type Asked = (tx: Tx, movements: readonly Movement[], madeAt: Date) => Promise<Beside[]>;

/** Less is the way of a command from a phone that has a network. */
const LATE_MS = 1_500;

/**
 * A phone without a network tells later what it has moved. Whoever has looked into a bin meanwhile has seen the effect already:
 * they say here what becomes of that.
 */
@Injectable()
export class LateMoves {
  private asked: Asked | undefined;

  register(asked: Asked): void {
    this.asked = asked;
  }

  async beside(tx: Tx, act: Act, movements: readonly Movement[]): Promise<Beside[]> {
    if (!act.madeAt || Date.now() - act.madeAt.getTime() < LATE_MS) return [];
    return (await this.asked?.(tx, movements, act.madeAt)) ?? [];
  }
}
