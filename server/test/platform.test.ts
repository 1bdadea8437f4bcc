import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { DataSource } from 'typeorm';
import { readConfig, ConfigError } from '../src/platform/config.js';
import { tablesText } from '../src/tools/tables-text.js';
import { migrations } from '../src/schema/index.js';
import { dataSourceOptions, migrate } from '../src/platform/database/data-source.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { addDays, dayText, dayIn } from '../src/platform/dates.js';
import { nextCode } from '../src/platform/number-series.js';
import { weightSlackG } from '@vectrum/core/cartons';
import { DUTIES, DUTY_RIGHTS, rightsOf } from '../src/identity/duties.js';
import { House } from './house.js';

describe('the configuration', () => {
  const enough = { DATABASE_USER: 'vectrum', DATABASE_PASSWORD: 'secret' };

  it('has defaults for all but the database account', () => {
    expect(readConfig(enough)).toMatchObject({
      DATABASE_HOST: '127.0.0.1',
      DATABASE_PORT: 3306,
      VECTRUM_PORT: 4600,
      VECTRUM_DEMO: false,
      LOG_LEVEL: 'info',
    });
  });

  it('reads numbers and switches from text', () => {
    expect(
      readConfig({ ...enough, DATABASE_PORT: '33070', VECTRUM_DEMO: '1', VECTRUM_SECURE_COOKIES: 'true', SESSION_HOURS: '8' }),
    ).toMatchObject({
      DATABASE_PORT: 33070,
      VECTRUM_DEMO: true,
      VECTRUM_SECURE_COOKIES: true,
      SESSION_HOURS: 8,
    });
  });

  it.each([
    ['DATABASE_USER', {}],
    ['DATABASE_PORT', { ...enough, DATABASE_PORT: 'many' }],
    ['DATABASE_PORT', { ...enough, DATABASE_PORT: '70000' }],
    ['VECTRUM_DEMO', { ...enough, VECTRUM_DEMO: 'perhaps' }],
    ['LOG_LEVEL', { ...enough, LOG_LEVEL: 'loud' }],
    ['SMTP_URL', { ...enough, SMTP_URL: 'mail.example.org' }],
    ['SESSION_HOURS', { ...enough, SESSION_HOURS: '0' }],
    ['VECTRUM_OUTSIDE_URL', { ...enough, VECTRUM_OUTSIDE_URL: 'outside' }],
  ])('names %s when it makes no sense', (name, env) => {
    expect(() => readConfig(env)).toThrow(ConfigError);
    expect(() => readConfig(env)).toThrow(new RegExp(name));
  });

  it('never says what a secret is', () => {
    try {
      readConfig({ DATABASE_PASSWORD: 'very-secret', DATABASE_PORT: 'x' });
    } catch (thrown) {
      expect((thrown as Error).message).not.toContain('very-secret');
    }
  });
});

describe('the schema', () => {
  let source: DataSource;
  const database = `migrations_${Date.now()}`;

  beforeAll(async () => {
    const config = readConfig(process.env);
    const admin = await new DataSource(dataSourceOptions(config, [])).initialize();
    await admin.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4`);
    await admin.destroy();
    source = await new DataSource({ ...dataSourceOptions(config, migrations), database } as never).initialize();
  });
  afterAll(async () => {
    await source.query(`DROP DATABASE ${database}`);
    await source.destroy();
  });

  const tables = async () =>
    (await source.query<{ n: string }[]>('SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = ?', [database]))[0]!.n;

  it('goes up, down to nothing, and up again', async () => {
    await migrate(source);
    const full = Number(await tables());
    expect(full).toBeGreaterThan(30);
    for (let i = 0; i < source.migrations.length; i++) await source.undoLastMigration();
    expect(Number(await tables())).toBe(1);
    await migrate(source);
    expect(Number(await tables())).toBe(full);
  });

  it('is brought up to date once by servers that start together', async () => {
    await Promise.all([migrate(source), migrate(source), migrate(source)]);
    const done = await source.query<unknown[]>('SELECT name FROM migrations');
    expect(done).toHaveLength(source.migrations.length);
  });

  it('is what the types of its tables say', async () => {
    const file = resolve(__dirname, '../src/platform/database/tables.generated.ts');
    // Compared word by word: how the file is laid out is the formatter's business.
    const words = (text: string) => text.replace(/[\s;|]+/g, ' ').trim();
    expect(words(readFileSync(file, 'utf8'))).toBe(words(await tablesText(source)));
  });

  it('refuses what must not be, whoever writes it', async () => {
    await source.query(`INSERT INTO site (code, name) VALUES ('S', 'Site')`);
    await source.query(`INSERT INTO place (site_id, code, kind) VALUES (1, 'B', 'pick-face')`);
    await source.query(`INSERT INTO item (sku, name) VALUES ('X', 'X')`);
    await expect(source.query('INSERT INTO balance (item_id, place_id, units, bounded) VALUES (1, 1, -1, 1)')).rejects.toThrow(
      'ck_balance_not_negative',
    );
    await expect(source.query(`INSERT INTO place (site_id, code, kind) VALUES (1, 'C', 'cupboard')`)).rejects.toThrow('ck_place_kind');
    await expect(
      source.query(`INSERT INTO movement (item_id, from_place_id, to_place_id, units, task) VALUES (1, 1, 1, 1, 'x')`),
    ).rejects.toThrow('ck_movement_places');
    await expect(source.query(`INSERT INTO pack_unit (item_id, name, plural, factor) VALUES (1, 'a', 'as', 0)`)).rejects.toThrow(
      'ck_pack_factor',
    );
    await expect(source.query('INSERT INTO site_stock (site_id, item_id, reserved) VALUES (1, 1, -1)')).rejects.toThrow('ck_site_stock');
    await expect(
      source.query(`INSERT INTO person (name, email, password_hash, duties) VALUES ('a', 'a', 'a', 'no json')`),
    ).rejects.toThrow();
  });
});

describe('small parts', () => {
  it('dates are counted in days and written for people', () => {
    expect(addDays('2026-02-27', 2)).toBe('2026-03-01');
    expect(addDays('2026-03-01', -1)).toBe('2026-02-28');
    expect(dayText('2026-05-14')).toBe('Thu 14 May');
    expect(dayIn('Europe/London', new Date('2026-05-14T23:30:00Z'))).toBe('2026-05-15');
  });

  it('a parcel may be six per cent off, and never less than forty grams', () => {
    expect(weightSlackG(200, 6, 40)).toBe(40);
    expect(weightSlackG(10_000, 6, 40)).toBe(600);
  });

  it('deciding what is picked and picking are apart', () => {
    expect(rightsOf(['picker']).has('release')).toBe(false);
    expect(rightsOf(['order-desk']).has('pick')).toBe(false);
    expect(rightsOf(['picker', 'packer'])).toEqual(new Set(['pick', 'store', 'count', 'pack', 'dispatch']));
    expect(DUTIES.every((d) => Array.isArray(DUTY_RIGHTS[d]))).toBe(true);
  });
});

describe('number series', () => {
  let house: House;
  beforeAll(async () => {
    house = await House.open();
  });
  afterAll(() => house.close());

  it('begin at one, are padded, and go on from where they are', async () => {
    await house.source.query('DELETE FROM number_series');
    const codes = [];
    for (let i = 0; i < 3; i++) codes.push(await inTransaction(house.source, (tx) => nextCode(tx, 'H')));
    expect(codes).toEqual(['H-0001', 'H-0002', 'H-0003']);
    await house.source.query(`UPDATE number_series SET next = 20417 WHERE name = 'H'`);
    expect(await inTransaction(house.source, (tx) => nextCode(tx, 'H'))).toBe('H-20417');
  });

  it('give a number back when its transaction fails', async () => {
    await inTransaction(house.source, async (tx) => {
      await nextCode(tx, 'R');
      throw new Error('no');
    }).catch(() => undefined);
    const next = await inTransaction(house.source, (tx) => nextCode(tx, 'R'));
    expect(await inTransaction(house.source, (tx) => nextCode(tx, 'R'))).not.toBe(next);
  });

  it('never give one number to two people', async () => {
    const codes = await Promise.all(Array.from({ length: 20 }, () => inTransaction(house.source, (tx) => nextCode(tx, 'P'))));
    expect(new Set(codes).size).toBe(20);
  });
});
