import { type ChildProcess, fork } from 'node:child_process';
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import type { APIRequestContext } from '@playwright/test';

export const ROOT = resolve(import.meta.dirname, '..');

interface Database {
  env: Record<string, string>;
  stop: () => Promise<void>;
}
const { startDatabase } = (await import(`${ROOT}/scripts/lib/database.mjs`)) as { startDatabase: (o: object) => Promise<Database> };

/** A server as the scripts start it, with some of its environment set otherwise. */
export function startServer(env: Record<string, string>): ChildProcess {
  return fork(`${ROOT}/server/dist/main.js`, [], {
    env: { ...process.env, ...env, LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
  });
}

export const OWNER = { name: 'Hedda Brook', email: 'hedda@example.org', password: 'a long enough password' };

/** A house without demo data, on a database and a port of its own. */
export class EmptyHouse {
  private constructor(
    readonly url: string,
    readonly database: Database,
    private readonly server: ChildProcess,
  ) {}

  static async open(name: string, port: number, env: Record<string, string> = {}): Promise<EmptyHouse> {
    const dir = `${ROOT}/.cache/${name}-db`;
    rmSync(dir, { recursive: true, force: true });
    const database = await startDatabase({ dir, bufferPool: '64M' });
    const server = startServer({ ...database.env, VECTRUM_DEMO: '0', VECTRUM_PORT: String(port), ...env });
    await new Promise((done) => server.once('message', done));
    return new EmptyHouse(`http://127.0.0.1:${port}`, database, server);
  }

  /** Makes the owner and the first site without the page, and signs the owner in. */
  async found(request: APIRequestContext): Promise<void> {
    await request.post(`${this.url}/api/first-owner`, { data: { ...OWNER, siteName: 'Old Dairy', siteCode: 'DAIRY' } });
    await request.post(`${this.url}/api/session`, { data: { email: OWNER.email, password: OWNER.password } });
  }

  async close(): Promise<void> {
    this.server.kill('SIGTERM');
    await this.database.stop();
  }
}
