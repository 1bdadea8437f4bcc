import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, readFileSync, renameSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Config } from '../src/platform/config.js';

const ROOT = resolve(import.meta.dirname, '../..');

/**
 * The furnished house as a dump. Making it takes two seconds and loading it half of one, so that each test file loads what one
 * has made: for the same sources, and the same day.
 */
export class Template {
  private constructor(private readonly path: string) {}

  private static made: Template | undefined;

  static now(): Template {
    return (this.made ??= this.read());
  }

  private static read(): Template {
    const hash = createHash('sha256').update(new Date().toISOString().slice(0, 10));
    for (const folder of ['server/src', 'core/src'])
      for (const name of readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' }).sort())
        if (name.endsWith('.ts')) hash.update(name).update(readFileSync(join(ROOT, folder, name)));
    return new Template(join(ROOT, '.cache/houses', `${hash.digest('hex').slice(0, 24)}.sql`));
  }

  get isMade(): boolean {
    return existsSync(this.path);
  }

  /** Keeps a database as the template; whoever else makes it at the same time makes the same. */
  async keep(config: Config, database: string): Promise<void> {
    mkdirSync(join(this.path, '..'), { recursive: true });
    const part = `${this.path}.${process.pid}`;
    const dump = spawn(
      'mariadb-dump',
      [...client(config), '--skip-comments', '--triggers', '--skip-lock-tables', '--single-transaction', database],
      {
        env: withPassword(config),
        stdio: ['ignore', 'pipe', 'inherit'],
      },
    );
    await Promise.all([pipeline(dump.stdout, createWriteStream(part)), ended(dump)]);
    renameSync(part, this.path);
  }

  async load(config: Config, database: string): Promise<void> {
    const load = spawn('mariadb', [...client(config), database], { env: withPassword(config), stdio: ['pipe', 'ignore', 'inherit'] });
    await Promise.all([pipeline(createReadStream(this.path), load.stdin), ended(load)]);
  }
}

const client = (config: Config) => ['-h', config.DATABASE_HOST, '-P', String(config.DATABASE_PORT), '-u', config.DATABASE_USER];
const withPassword = (config: Config) => ({ ...process.env, MYSQL_PWD: config.DATABASE_PASSWORD });

async function ended(child: ReturnType<typeof spawn>): Promise<void> {
  const [code] = (await once(child, 'exit')) as [number | null];
  if (code !== 0) throw new Error(`${child.spawnfile} ended with ${code}`);
}
