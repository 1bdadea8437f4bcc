import { randomUUID } from 'node:crypto';
import { lstat, mkdir, readdir, readFile, rename, rmdir, utimes, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { Config, LOGGER, Problem, rows, Worker } from '../../platform/index.js';
import { Exchanges } from '../exchanges.js';
import { FilesIn } from '../files-in.service.js';

const BEAT_MS = 2_000;
/** A file that was written to later than this may not be whole yet. */
const SETTLED_MS = 2_000;
/** What a server took and left behind when it died is taken again after so long. */
const LEASE_MS = 60_000;
const MOST_BYTES = 16_000_000;
/** Characters of a name that are kept beside the time, so that both fit whatever the characters are. */
const MOST_NAME = 60;
const TAKING = '.taking';
/** How programs name what they are still writing. */
const UNFINISHED = /^\.|\.(part|tmp|filepart|crdownload)$/i;

/** A code that could lead out of the folder has none of its own. */
const FOLDER_NAME = /^[A-Za-z0-9-]+$/;

interface Dropped {
  channelId: number;
  code: string;
  /** The channel's folder. */
  folder: string;
  /** Where the file lies while it is taken: in a folder of its own, so that another of its name does not come over it. */
  taken: string;
  /** Its name as it was put there. */
  name: string;
}

/**
 * Takes in what is put into a channel's own folder: `ORDER_FOLDER/CODE/file`. A file that was taken goes to `done`, one of which nothing
 * can be read to `refused` with the reason beside it, so that whoever puts files there sees what became of them without signing in.
 */
@Injectable()
export class OrderFolder extends Worker<Dropped> {
  protected readonly beatMs = BEAT_MS;
  /** Files of one channel may speak of one order: they go one after the other. */
  protected override readonly atOnce = 1;
  private trouble = '';

  constructor(
    private readonly source: DataSource,
    private readonly config: Config,
    private readonly files: FilesIn,
    private readonly exchanges: Exchanges,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  /** The oldest file that lies whole in a folder, moved out of every other server's sight. */
  protected async claim(): Promise<Dropped[]> {
    const root = this.config.ORDER_FOLDER;
    if (!root) return [];
    const channels = await rows<{ id: number; code: string }>(this.source, `SELECT id, code FROM channel WHERE paused = 0 ORDER BY id`);
    const troubles: string[] = [];
    let found: Dropped | undefined;
    for (const { id, code } of channels) {
      if (!FOLDER_NAME.test(code)) continue;
      const folder = join(root, code);
      // A folder that cannot be read or written holds up no other channel.
      const taken = await this.takenIn(folder).catch((thrown: unknown) => void troubles.push(String(thrown)));
      if (!taken) continue;
      found = { channelId: id, code, folder, taken, name: basename(taken) };
      break;
    }
    const why = troubles.join('; ');
    // Said once, not every two seconds.
    if (why !== '' && why !== this.trouble) this.log.warn({ why }, 'a folder of order files cannot be used');
    this.trouble = why;
    return found ? [found] : [];
  }

  /** A file of a folder that is this server's from now on: one that was taken and not finished, otherwise the oldest that waits. */
  private async takenIn(folder: string): Promise<string | undefined> {
    await mkdir(join(folder, TAKING), { recursive: true });
    return (await this.left(folder)) ?? this.waiting(folder);
  }

  private async left(folder: string): Promise<string | undefined> {
    for (const own of await readdir(join(folder, TAKING))) {
      const inside = join(folder, TAKING, own);
      for (const name of await readdir(inside).catch(() => [])) {
        const at = join(inside, name);
        const file = await lstat(at).catch(() => undefined);
        if (!file || Date.now() - file.mtimeMs < LEASE_MS) continue;
        await utimes(at, new Date(), new Date());
        return at;
      }
    }
    return undefined;
  }

  private async waiting(folder: string): Promise<string | undefined> {
    const found = [];
    for (const name of await readdir(folder)) {
      if (UNFINISHED.test(name)) continue;
      const file = await lstat(join(folder, name)).catch(() => undefined);
      if (file?.isFile() && Date.now() - file.mtimeMs >= SETTLED_MS) found.push({ name, at: file.mtimeMs });
    }
    found.sort((a, b) => a.at - b.at || (a.name < b.name ? -1 : 1));
    for (const { name } of found) {
      const own = join(folder, TAKING, randomUUID());
      await mkdir(own);
      const taken = join(own, name);
      // Of several servers one moves it; the others find it gone.
      if (await moved(join(folder, name), taken)) {
        await utimes(taken, new Date(), new Date());
        return taken;
      }
      await rmdir(own);
    }
    return undefined;
  }

  protected async carryOut(job: Dropped): Promise<void> {
    try {
      const { size } = await lstat(job.taken);
      if (size > MOST_BYTES) throw new Problem(413, 'too-large', `The file has ${size} bytes; ${MOST_BYTES} at the most. Divide it`);
      await this.files.take(null, job.code, await readFile(job.taken));
      await this.put(job, 'done');
    } catch (thrown) {
      // Anything else than the file's own fault is tried again when the lease is over.
      if (!(thrown instanceof Problem) || thrown.status >= 500) throw thrown;
      const why = [thrown.detail, ...Object.values(thrown.extra.fields ?? {})].join('\n');
      await this.put(job, 'refused', why);
      await this.exchanges.note(job.channelId, { direction: 'in', what: 'file', ref: null, went: 'failed', detail: `${job.name}: ${why}` });
    }
  }

  private async put({ folder, taken, name }: Dropped, where: 'done' | 'refused', why?: string): Promise<void> {
    const into = join(folder, where);
    await mkdir(into, { recursive: true });
    const stamp = new Date().toISOString().replace(/[-:.Z]/g, '');
    // The end of a long name is kept: it says what kind of file it is.
    const kept = join(into, `${stamp}-${name.slice(-MOST_NAME)}`);
    await rename(taken, kept);
    await rmdir(dirname(taken));
    if (why) await writeFile(`${kept}.why.txt`, `${why}\n`);
  }
}

async function moved(from: string, to: string): Promise<boolean> {
  try {
    await rename(from, to);
    return true;
  } catch (thrown) {
    if ((thrown as NodeJS.ErrnoException).code === 'ENOENT') return false;
    throw thrown;
  }
}
