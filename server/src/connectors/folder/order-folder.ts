import { lstat, mkdir, readdir, readFile, rename, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
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
/** How programs name what they are still writing. */
const UNFINISHED = /^\.|\.(part|tmp|filepart|crdownload)$/i;

/** A code that could lead out of the folder has none of its own. */
const FOLDER_NAME = /^[A-Za-z0-9-]+$/;

interface Dropped {
  channelId: number;
  code: string;
  /** The channel's folder, and the file's name as it was put there. */
  folder: string;
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
    try {
      for (const { id, code } of channels) {
        if (!FOLDER_NAME.test(code)) continue;
        const folder = join(root, code);
        await mkdir(join(folder, '.taking'), { recursive: true });
        const name = (await this.left(folder)) ?? (await this.waiting(folder));
        if (name) return [{ channelId: id, code, folder, name }];
      }
      this.trouble = '';
    } catch (thrown) {
      const why = String(thrown);
      // Said once, not every two seconds.
      if (why !== this.trouble) this.log.warn({ why }, 'the folder of order files cannot be used');
      this.trouble = why;
    }
    return [];
  }

  /** A file that was taken and not finished. */
  private async left(folder: string): Promise<string | undefined> {
    const taking = join(folder, '.taking');
    for (const name of await readdir(taking)) {
      const at = join(taking, name);
      if (Date.now() - (await lstat(at)).mtimeMs < LEASE_MS) continue;
      await utimes(at, new Date(), new Date());
      return name;
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
      const taken = join(folder, '.taking', name);
      // Of several servers one moves it; the others find it gone.
      if (!(await moved(join(folder, name), taken))) continue;
      await utimes(taken, new Date(), new Date());
      return name;
    }
    return undefined;
  }

  protected async carryOut(job: Dropped): Promise<void> {
    const at = join(job.folder, '.taking', job.name);
    try {
      const { size } = await lstat(at);
      if (size > MOST_BYTES) throw new Problem(413, 'too-large', `The file has ${size} bytes; ${MOST_BYTES} at the most. Divide it`);
      await this.files.take(null, job.code, await readFile(at));
      await this.put(job, 'done');
    } catch (thrown) {
      // Anything else than the file's own fault is tried again when the lease is over.
      if (!(thrown instanceof Problem) || thrown.status >= 500) throw thrown;
      const why = [thrown.detail, ...Object.values(thrown.extra.fields ?? {})].join('\n');
      await this.put(job, 'refused', why);
      await this.exchanges.note(job.channelId, { direction: 'in', what: 'file', ref: null, went: 'failed', detail: `${job.name}: ${why}` });
    }
  }

  private async put({ folder, name }: Dropped, where: 'done' | 'refused', why?: string): Promise<void> {
    const into = join(folder, where);
    await mkdir(into, { recursive: true });
    const stamp = new Date().toISOString().replace(/[-:]/g, '').replace(/\..*/, '');
    const kept = join(into, `${stamp}-${name}`.slice(0, 240));
    await rename(join(folder, '.taking', name), kept);
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
