import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { FloorCommand } from '@vectrum/core/scan';
import type { Dto } from '../api/client';

/** A command of this device, from the scan that made it until its effect is seen. */
export interface KeptCommand {
  /** Its place in the queue; given by the store. */
  seq: number;
  id: string;
  /** The task that it belongs to, such as "pick/R-0612". */
  address: string;
  command: FloorCommand;
  /** What its band said, for the slip while it is not sent. */
  title: string;
  detail: string;
  personId: number;
  person: string;
  madeAt: string;
  /** The page that made it: one that is gone waits for no answer. */
  page: string;
  /** Whether the server may have seen it. */
  tried: boolean;
  /** When it was answered; null until then. Answered ones are kept until a task that shows their effect is shown. */
  answeredAt: number | null;
}

export interface BookPart {
  key: string;
  items: Dto['BookItemDto'][];
  places: Dto['BookPlaceDto'][];
}

interface Schema extends DBSchema {
  commands: { key: number; value: Omit<KeptCommand, 'seq'> & { seq?: number }; indexes: { id: string } };
  tasks: { key: string; value: { address: string; readAt: number; bundle: Dto['FloorTask'] } };
  drafts: { key: string; value: { address: string; personId: number; at: number; state: object } };
  answers: { key: string; value: { key: string; answer: unknown } };
  books: { key: string; value: BookPart };
  bookVersions: { key: number; value: { siteId: number; version: number } };
}
export type DeviceDatabase = IDBPDatabase<Schema>;

let opened: Promise<DeviceDatabase> | undefined;

/** The device's own database: what it must not forget when the page, the browser or the phone is closed. */
export function deviceDatabase(): Promise<DeviceDatabase> {
  opened ??= openDB<Schema>('vectrum', 1, {
    upgrade(db) {
      db.createObjectStore('commands', { keyPath: 'seq', autoIncrement: true }).createIndex('id', 'id', { unique: true });
      db.createObjectStore('tasks', { keyPath: 'address' });
      db.createObjectStore('drafts', { keyPath: 'address' });
      db.createObjectStore('answers', { keyPath: 'key' });
      db.createObjectStore('books', { keyPath: 'key' });
      db.createObjectStore('bookVersions', { keyPath: 'siteId' });
    },
  });
  return opened;
}
