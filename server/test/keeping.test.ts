import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { DataSource } from 'typeorm';
import { Nightly } from '../src/company/nightly.js';
import { migrations } from '../src/schema/index.js';
import { dataSourceOptions, migrate } from '../src/platform/database/data-source.js';
import { Metrics } from '../src/platform/metrics.js';
import { checkLedger } from '../src/stock/ledger-check.js';
import { checked, settled } from './importing.js';
import { type Caller, House } from './house.js';

const ROOT = resolve(import.meta.dirname, '../..');
let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  await house.stock('JAR-454-RD', 'A-01-1', 5_000);
});
afterAll(() => house.close());

describe('a backup', () => {
  const dir = mkdtempSync(join(tmpdir(), 'vectrum-backup-'));
  const file = join(dir, 'house.sql.gz');
  afterAll(() => rmSync(dir, { recursive: true, force: true }));

  /** Runs a script of ours against a database of the same server; resolves to how it ended and what it said. */
  const script = (name: string, args: string[], database: string) =>
    new Promise<{ code: number; said: string }>((done) => {
      const { DATABASE_HOST, DATABASE_PORT, DATABASE_USER, DATABASE_PASSWORD } = house.config;
      const env = {
        ...process.env,
        DATABASE_HOST,
        DATABASE_PORT: String(DATABASE_PORT),
        DATABASE_USER,
        DATABASE_PASSWORD,
        DATABASE_NAME: database,
      };
      execFile('node', [join(ROOT, 'scripts', `${name}.mjs`), ...args], { env, cwd: ROOT }, (fault, out, err) =>
        done({ code: fault ? Number(fault.code) : 0, said: out + err }),
      );
    });
  const another = async <T>(name: string, work: (source: DataSource) => Promise<T>): Promise<T> => {
    const source = await new DataSource(dataSourceOptions({ ...house.config, DATABASE_NAME: name }, [])).initialize();
    try {
      return await work(source);
    } finally {
      await source.destroy();
    }
  };

  it('is made while people work, proved, and put back whole', async () => {
    let working = true;
    const busy = (async () => {
      let n = 0;
      while (working) {
        await house.order([['JAR-454-RD', 1]]);
        n++;
        await new Promise((done) => setTimeout(done, 60));
      }
      return n;
    })();
    const made = await script('backup', [file], house.config.DATABASE_NAME);
    working = false;
    expect([made.code, made.said]).toEqual([0, expect.stringContaining('The ledger is clean')]);
    expect(await busy).toBeGreaterThan(3);
    expect(readdirSync(dir)).toEqual(['house.sql.gz']);

    const target = `${house.config.DATABASE_NAME}_back`;
    await house.source.query(`CREATE DATABASE ${target} CHARACTER SET utf8mb4`);
    await house.source.query(`CREATE TABLE ${target}.of_another_house (id INT)`);
    // A house that is there is not put over by a slip of the hand.
    const slip = await script('restore', [file], target);
    expect([slip.code, slip.said]).toEqual([1, expect.stringContaining('--over')]);
    const restored = await script('restore', [file, '--over'], target);
    expect([restored.code, restored.said]).toEqual([0, expect.stringContaining('as it was')]);
    await another(target, async (source) => {
      expect(await checkLedger(source)).toEqual([]);
      const pictures = async (s: DataSource) => (await s.query<{ n: string; h: string }[]>('SELECT COUNT(*) AS n FROM item_picture'))[0];
      expect(await pictures(source)).toEqual(await pictures(house.source));
      const [orders] = await source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM sales_order');
      expect(Number(orders!.n)).toBeGreaterThanOrEqual(0);
    });
    await house.source.query(`DROP DATABASE ${target}`);
    // Eight programs run here one after another, and each reads or writes a whole house.
  }, 300_000);

  it('that is none, is damaged, or would be put over an open house, is refused, and nothing is touched', async () => {
    const text = join(dir, 'text.sql.gz');
    writeFileSync(text, 'no backup');
    expect((await script('restore', [text], 'nowhere')).said).toContain('is no backup');
    expect((await script('restore', [join(dir, 'none')], 'nowhere')).said).toContain('There is no file');
    const open = await script('restore', [file, '--over'], house.config.DATABASE_NAME);
    expect([open.code, open.said]).toEqual([1, expect.stringContaining('Stop it first')]);
    truncateSync(file, 4_000);
    const damaged = await script('restore', [file], `${house.config.DATABASE_NAME}_none`);
    expect(damaged.code).toBe(1);
    const left = await house.source.query<object[]>(`SHOW DATABASES LIKE '${house.config.DATABASE_NAME}\\_%'`);
    expect(left).toEqual([]);
  });
});

describe('a house of another version', () => {
  const empty = async (name: string) => {
    await house.source.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
    return new DataSource(dataSourceOptions({ ...house.config, DATABASE_NAME: name, DATABASE_CONNECTIONS: 4 }, migrations));
  };

  it('is brought up to date once, by three servers that start at once', async () => {
    const name = `${house.config.DATABASE_NAME}_three`;
    const sources = [
      await empty(name),
      ...[1, 2].map(() => new DataSource(dataSourceOptions({ ...house.config, DATABASE_NAME: name }, migrations))),
    ];
    await Promise.all(sources.map((s) => migrate(s)));
    const done = await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM ${name}.migrations`);
    expect(Number(done[0]!.n)).toBe(migrations.length);
    await house.source.query(`DROP DATABASE ${name}`);
  });

  it('that was left without an owner has one afterwards: who has set up for longest', async () => {
    const name = `${house.config.DATABASE_NAME}_owner`;
    const source = await empty(name);
    await migrate(source);
    await source.initialize();
    for (let n = migrations.length; n > 24; n--) await source.undoLastMigration();
    for (const [who, duties] of [
      ['Picker', '["picker"]'],
      ['First', '["set-up"]'],
      ['Second', '["set-up","buyer"]'],
    ])
      await source.query(`INSERT INTO person (name, email, password_hash, duties) VALUES (?, ?, 'x', ?)`, [
        who,
        `${who}@mail.example`,
        duties,
      ]);
    await migrate(source);
    const owners = await source.query<{ name: string }[]>(`SELECT name FROM person WHERE JSON_CONTAINS(duties, '"owner"')`);
    expect(owners.map((o) => o.name)).toEqual(['First']);
    await source.destroy();
    await house.source.query(`DROP DATABASE ${name}`);
  });

  it('that is newer is not opened by an older server', async () => {
    const name = `${house.config.DATABASE_NAME}_newer`;
    const source = await empty(name);
    await migrate(source);
    await house.source.query(`INSERT INTO ${name}.migrations (timestamp, name) VALUES (9999999999999, 'Later9999999999999')`);
    await expect(migrate(source)).rejects.toThrow(/newer version \(Later9999999999999\).*restore the backup/);
    await house.source.query(`DROP DATABASE ${name}`);
  });
});

describe('what a house writes', () => {
  const count = async (table: string) => Number((await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM ${table}`))[0]!.n);

  it('is cleared at night when it has been kept for long enough, and not before', async () => {
    await house.deliver();
    const run = await checked(house, maren, 'old.csv', 'SKU,Name\nOLD-1,Old\n', { kind: 'items' });
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    await settled(house, maren, run.id);
    const nightly = house.app.get(Nightly);
    const morning = new Date(new Date().toISOString().slice(0, 10) + 'T04:30:00Z');
    const counts = async () =>
      Promise.all(['command', 'outbox', 'activity', 'import_row', 'session', 'movement', 'sales_order'].map(count));
    const before = await counts();
    await house.source.query(`DELETE FROM setting WHERE name = 'nightlyDone'`);
    expect(await nightly.look(morning)).toBe(true);
    expect(await counts()).toEqual(before);
    expect(await nightly.look(morning)).toBe(false);

    const [commands = 0, , activity = 0, rows = 0] = before;
    await house.source.query('UPDATE command SET server_at = server_at - INTERVAL 61 DAY');
    await house.source.query(`UPDATE outbox SET created_at = created_at - INTERVAL 61 DAY`);
    await house.source.query('UPDATE activity SET at = at - INTERVAL 4 YEAR WHERE id % 2 = 0');
    await house.source.query('UPDATE import_run SET created_at = created_at - INTERVAL 1 YEAR');
    await house.source.query('UPDATE session SET expires_at = expires_at - INTERVAL 2 MONTH WHERE person_id <> 1');
    await house.source.query(`DELETE FROM setting WHERE name = 'nightlyDone'`);
    const late = await count('activity WHERE at < UTC_TIMESTAMP() - INTERVAL 3 YEAR');
    const waiting = await count(`outbox WHERE state <> 'done'`);
    expect(await nightly.look(morning)).toBe(true);
    expect(commands).toBeGreaterThan(0);
    expect(rows).toBeGreaterThan(0);
    expect(await count('command')).toBe(0);
    expect(await count('outbox')).toBe(waiting);
    expect(await count('activity')).toBe(activity - late);
    expect(await count('import_row')).toBe(0);
    // What counts is never cleared.
    expect(await count('movement')).toBe(before[5]);
    expect(await count('sales_order')).toBe(before[6]);
    const undone = await maren.post(`imports/${run.id}/undo`).expect(409);
    expect(undone.body).toMatchObject({ detail: expect.stringContaining('kept no longer') });
  });

  it('is never cleared before night, and the choice of days is the company’s', async () => {
    await house.source.query(`DELETE FROM setting WHERE name = 'nightlyDone'`);
    expect(await house.app.get(Nightly).look(new Date(new Date().toISOString().slice(0, 10) + 'T00:30:00Z'))).toBe(false);
    await maren.put('company/settings/keepTape', { value: '10' }).expect(400);
    await maren.put('company/settings/keepTape', { value: '400' }).expect(204);
  });
});

describe('figures about a server', () => {
  it('are told in OpenMetrics text: requests by route, and what waits to leave', async () => {
    await maren.get('orders').expect(200);
    await maren.get('orders/NOT-THERE').expect(404);
    const text = await house.app.get(Metrics).text();
    expect(text).toMatch(/vectrum_request_seconds_bucket\{le="0\.04",method="GET",route="\/api\/orders",status="200"\} \d+/);
    expect(text).toMatch(/route="\/api\/orders\/:code",status="404"/);
    expect(text.trimEnd().endsWith('# EOF')).toBe(true);
  });
});
