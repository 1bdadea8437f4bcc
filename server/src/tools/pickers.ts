import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import {
  type Codebook,
  codebookOf,
  currentStop,
  type FloorCommand,
  inHandAt,
  isAtBin,
  isLotSeen,
  isSetDown,
  othersStops,
  pick,
  type PickState,
  type PickTask,
  startPick,
  toteless,
  toteOf,
  wantedAt,
} from '@vectrum/core/scan';

/** How pickers reach the house: as phones do. */
export interface House {
  get: (path: string) => Promise<unknown>;
  /** Sends a command; the status that it was answered with. */
  send: (command: FloorCommand, late: boolean) => Promise<number>;
}

/** What goes wrong, each as a share of all steps. */
export interface Faults {
  wrongScan: number;
  short: number;
  /** The phone is laid down: what was in hand and not kept is forgotten, and the task read anew. */
  dropOut: number;
  /** A command is sent a second time. */
  repeat: number;
  /** The network goes, for some steps: commands wait and are sent one after the other. */
  offline: number;
}
export const NO_FAULTS: Faults = { wrongScan: 0, short: 0, dropOut: 0, repeat: 0, offline: 0 };

export interface PickersReport {
  /** How long the answers to commands took, in milliseconds. */
  times: number[];
  rounds: number;
  picks: number;
  shorts: number;
  /** Scans that the phone refused by itself, and commands that the house refused. */
  refusedHere: number;
  refusedThere: number;
}

interface RoundRow {
  code: string;
  state: string;
  picker: string | null;
}
type Bundle = PickTask & { applied: string[] };

/** A person with a phone who walks one round after the other until none is left, by the same flow as the phone's page. */
export class Picker {
  readonly report: PickersReport = { times: [], rounds: 0, picks: 0, shorts: 0, refusedHere: 0, refusedThere: 0 };
  private book: Codebook = { today: '2026-01-01', codes: {}, items: {}, places: {} };
  /** Codes that mean something at the site: what a wrong scan is taken from. */
  private codes: string[] = [];
  private freeTotes: string[] = [];

  constructor(
    private readonly house: House,
    private readonly random: () => number,
    private readonly faults: Faults,
    private readonly siteId: number,
    private readonly table: string,
    /** Milliseconds between two steps. */
    private readonly step: number,
  ) {}

  private chance(share: number): boolean {
    return this.random() < share;
  }

  private any<T>(list: readonly T[]): T | undefined {
    return list[Math.floor(this.random() * list.length)];
  }

  /** Walks until no round is open. Throws where it does not end. */
  async work(totes: readonly string[]): Promise<PickersReport> {
    const part = (await this.house.get(`floor/book?site=${this.siteId}&since=0`)) as {
      items: Parameters<typeof codebookOf>[0];
      places: Parameters<typeof codebookOf>[1];
    };
    this.book = { today: new Date().toISOString().slice(0, 10), ...codebookOf(part.items, part.places) };
    this.codes = [...Object.keys(this.book.codes), ...Object.keys(this.book.places)];
    this.freeTotes = [...totes];
    for (let turn = 0; turn < 400; turn++) {
      const { rows } = (await this.house.get(`rounds?site=${this.siteId}&limit=200`)) as { rows: RoundRow[] };
      const open = rows.filter((r) => r.state === 'waiting' || r.state === 'picking');
      if (open.length === 0) return this.report;
      const waiting = open.filter((r) => r.state === 'waiting');
      // Now and then two are on one round.
      const next = this.chance(0.15) ? this.any(open) : (this.any(waiting) ?? this.any(open));
      if (next && (await this.walk(next.code))) this.report.rounds++;
    }
    throw new Error('Rounds are still open after 400 turns');
  }

  private async task(round: string, asked: readonly string[]): Promise<Bundle> {
    const { task, applied } = (await this.house.get(`floor/tasks/pick/${round}?asked=${asked.join(',')}`)) as {
      task: PickTask;
      applied: string[];
    };
    return { ...task, applied };
  }

  /** One round, until it is set down or somebody else has ended it. Returns whether it was set down here. */
  private async walk(round: string): Promise<boolean> {
    let state: PickState = startPick;
    const unsent: FloorCommand[] = [];
    let away = 0;
    let task = await this.task(round, []);
    const hear = (input: Parameters<typeof pick.step>[3]) => {
      const result = pick.step(task, this.book, state, input);
      state = result.state;
      this.report.refusedHere += result.commands.filter((c) => c.kind === 'refused').length;
      unsent.push(...result.commands.filter((c) => c.kind !== 'refused'));
    };
    const read = async () => {
      task = await this.task(
        round,
        state.pending.map((c) => c.id),
      );
      hear({ kind: 'settled', id: randomUUID(), ids: task.applied });
    };
    const flush = async (late: boolean) => {
      for (const command of unsent.splice(0)) {
        const begun = performance.now();
        let status = await this.house.send(command, late);
        this.report.times.push(performance.now() - begun);
        if (this.chance(this.faults.repeat)) status = await this.house.send(command, late);
        if (status === 200) {
          if (command.kind === 'pick') this.report.picks++;
          if (command.kind === 'short') this.report.shorts++;
        } else {
          this.report.refusedThere++;
          hear({ kind: 'settled', id: randomUUID(), ids: [command.id] });
        }
      }
      await read();
    };
    for (let n = 0; n < 600; n++) {
      if (this.step > 0) await pause(this.step * (0.5 + this.random()));
      if (away === 0 && unsent.length > 0) await flush(false);
      else if (away > 0 && --away === 0) await flush(true);
      else if (away === 0 && this.chance(this.faults.offline)) away = 1 + Math.floor(this.random() * 8);
      if (away === 0 && unsent.length === 0 && isSetDown(task, state)) return task.state === 'set-down';
      if (away > 0 && isSetDown(task, state)) continue;
      if (this.chance(this.faults.dropOut) && unsent.length === 0) {
        state = { ...startPick, pending: state.pending };
        await read();
      }
      this.next(task, state, hear);
    }
    throw new Error(`${round} does not end: ${JSON.stringify({ task, state })}`);
  }

  /** What somebody who stands there would do next. */
  private next(task: PickTask, state: PickState, hear: (input: Parameters<typeof pick.step>[3]) => void): void {
    const id = randomUUID();
    const scan = (code: string) => hear({ kind: 'code', id, code, how: 'scanned' });
    if (this.chance(this.faults.wrongScan)) return scan(this.any(this.codes) ?? '');
    const stop = currentStop(task, state);
    if (!stop && othersStops(task, state).length > 0) {
      // A colleague walks it: they walk with them, or on for them where there is nothing to share.
      if (state.pending.length > 0) return;
      return hear({ kind: this.chance(0.7) ? 'help' : 'take', id });
    }
    if (!stop) return scan(task.pooled ? (Object.values(this.book.places).find((p) => p.kind === 'sorting-wall')?.code ?? '') : this.table);
    if (state.asksAt === stop.id) return hear({ kind: 'there', id, units: Math.floor(this.random() * (wantedAt(state, stop) + 1)) });
    const order = toteless(task, state, stop);
    if (order && (order.id === stop.orderId || inHandAt(state, stop) === 0)) {
      const tote = this.freeTotes.pop();
      return tote ? scan(tote) : hear({ kind: 'clear', id });
    }
    const inHand = inHandAt(state, stop);
    if (inHand === 0 && this.chance(this.faults.short)) return hear({ kind: 'not-here', id, stopId: stop.id });
    if (task.mustScanBin && !isAtBin(state, stop)) return scan(stop.placeCode);
    const item = this.book.items[stop.itemId];
    if (!item) throw new Error(`Item ${stop.itemId} is not in the book`);
    if (inHand === 0) return scan(item.sku);
    if (!isLotSeen(state, stop)) return hear({ kind: 'lot', id, lot: stop.lot ?? '' });
    const base = item.packs.find((p) => p.factor === 1);
    if (inHand < wantedAt(state, stop) && base) return hear({ kind: 'count', id, packId: base.id, count: wantedAt(state, stop) });
    const tote = Object.values(this.book.places).find((p) => p.id === toteOf(task, state, stop.orderId));
    scan(tote?.code ?? '');
  }
}
