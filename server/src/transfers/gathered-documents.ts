import { Injectable } from '@nestjs/common';
import type { GatherCommand, GatherTask } from '@vectrum/core/scan';
import type { FloorAnswerDto } from '../floor/index.js';
import { type Act, notFound, type SeriesName, type Tx } from '../platform/index.js';

/** A kind of document for which goods are gathered out of bins, and what becomes of them. */
export interface Gathering {
  task(tx: Tx, code: string): Promise<GatherTask>;
  gather(tx: Tx, act: Act, command: GatherCommand): Promise<FloorAnswerDto>;
  siteOf(tx: Tx, code: string): Promise<number | null>;
}

/** Whatever goods are gathered for, by the letter of its numbers; each module says how its own go. */
@Injectable()
export class GatheredDocuments {
  private readonly kinds = new Map<string, Gathering>();

  register(series: SeriesName, gathering: Gathering): void {
    this.kinds.set(series, gathering);
  }

  of(code: string): Gathering {
    const found = this.kinds.get(code.slice(0, 1).toUpperCase());
    if (!found) throw notFound(`${code.slice(0, 20)}: nothing that goods are gathered for. That`);
    return found;
  }
}
