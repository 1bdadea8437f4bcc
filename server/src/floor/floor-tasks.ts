import { Injectable } from '@nestjs/common';
import { TASK_KINDS, type TaskKind } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import type { Right } from '../identity/index.js';
import { inSnapshot, marks, mustBeAt, notFound, type Person, prepared, Problem, siteDay, type Tx } from '../platform/index.js';
import type { BundleDto } from './floor.dto.js';

/** What a task's shape says, to be read only. */
type Shown<T> = T extends Date
  ? T
  : T extends readonly (infer E)[]
    ? readonly Shown<E>[]
    : T extends object
      ? { readonly [K in keyof T]: Shown<T[K]> }
      : T;

/** How one kind of task is read. */
export interface TaskReader<Task extends object> {
  kind: TaskKind;
  right: Right;
  /** The shape of its bundle, for the API's document. */
  bundle: new () => BundleDto & { task: Task };
  /** The task as it stands now, and the site that it is done at. `key` is a document's code or a site's number. */
  read(tx: Tx, person: Person, key: string): Promise<{ task: Shown<Task>; siteId: number }>;
}

export const MOST_ASKED = 50;

/** The site that a task is asked for, where tasks are one a site. */
export function siteKey(key: string): number {
  if (!/^\d{1,9}$/.test(key)) throw notFound(`Site ${key.slice(0, 20)}`);
  return Number(key);
}

/** The one door for tasks of the floor: what a phone needs to do one of them, network or none. */
@Injectable()
export class FloorTasks {
  private readonly readers = new Map<string, TaskReader<object>>();

  constructor(private readonly source: DataSource) {}

  register<Task extends object>(reader: TaskReader<Task>): void {
    this.readers.set(reader.kind, reader);
  }

  bundles(): { kind: TaskKind; dto: new () => BundleDto }[] {
    return [...this.readers.values()].map(({ kind, bundle }) => ({ kind, dto: bundle }));
  }

  rights(): ReadonlyMap<string, Right> {
    return new Map([...this.readers.values()].map((r) => [r.kind, r.right]));
  }

  /**
   * The task and which of the commands that the phone asks about it shows the effect of, both as they stand at one moment,
   * however long ago the commands were made.
   */
  read(person: Person, kind: string, key: string, asked: readonly string[]): Promise<BundleDto & { kind: TaskKind; task: object }> {
    const reader = this.readers.get(kind);
    if (!reader) throw notFound(`A task called ${kind.slice(0, 20)}; there are ${TASK_KINDS.join(', ')}. That`);
    if (!person.rights.has(reader.right))
      throw new Problem(403, 'not-allowed', `This needs the duty of ${reader.right}. Ask whoever sets up people`);
    return inSnapshot(this.source, async (tx) => {
      const { task, siteId } = await reader.read(tx, person, key);
      mustBeAt(person, siteId);
      const { today, timeZone } = await siteDay(tx, siteId);
      const applied = await prepared<{ id: string }[]>(tx, `SELECT id FROM command WHERE done = 1 AND id IN (${marks(asked)})`, asked);
      return { kind: reader.kind, siteId, today, timeZone, applied: applied.map((a) => a.id), task };
    });
  }
}
