import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { DataSource } from 'typeorm';
import { dataSourceOptions } from '../src/platform/database/data-source.js';
import { FIGURES, openFigures } from '../src/tools/figures.js';
import { House } from './house.js';

const NAME = `reader_${process.pid}`;
const PASSWORD = 'a-password-of-some-length';

/** Views for programs that read the database itself. */
describe('figures for other programs', () => {
  let house: House;
  let reader: DataSource;
  let db: string;
  beforeAll(async () => {
    house = await House.open();
    await house.stock('SMK-LGE', 'A-10-1', 9);
    await house.order([['SMK-LGE', 2]]);
    db = await open();
    const config = { ...house.config, DATABASE_NAME: db, DATABASE_USER: NAME, DATABASE_PASSWORD: PASSWORD };
    reader = await new DataSource(dataSourceOptions(config, [])).initialize();
  });
  afterAll(async () => {
    await reader.destroy();
    await house.source.query(`DROP DATABASE \`${db}\``);
    await house.source.query(`DROP USER '${NAME}'@'%'`);
    await house.close();
  });
  const open = (more: object = {}) =>
    openFigures(house.source, house.config.DATABASE_NAME, {
      name: NAME,
      password: PASSWORD,
      own: house.config.DATABASE_USER,
      seesWorth: false,
      ...more,
    });

  it('say what the pages say', async () => {
    const [stock] = await reader.query<Record<string, unknown>[]>("SELECT * FROM stock WHERE sku = 'SMK-LGE' AND site = 'MILL'");
    expect(stock).toMatchObject({ on_hand: 9, reserved: 2 });
    expect(Number(stock?.['available'])).toBe(7);
    expect(await reader.query("SELECT place, units FROM heaps WHERE sku = 'SMK-LGE'")).toMatchObject([{ place: 'A-10-1', units: 9 }]);
    expect(await reader.query("SELECT units, state FROM order_lines WHERE sku = 'SMK-LGE'")).toMatchObject([{ units: 2, state: 'open' }]);
    for (const view of Object.keys(FIGURES)) if (view !== 'worth') await reader.query(`SELECT * FROM ${view} LIMIT 2`);
  });

  it('show no customer, no costs unless that is said, and open no table; nothing can be written', async () => {
    const columns = await reader.query<{ column_name: string }[]>(
      'SELECT column_name AS column_name FROM information_schema.columns WHERE table_schema = ?',
      [db],
    );
    expect(columns.map((c) => c.column_name).filter((c) => /customer|email|phone|address|city|postcode|secret|cost|value/.test(c))).toEqual(
      [],
    );
    const own = house.config.DATABASE_NAME;
    for (const sql of [
      'SELECT * FROM worth',
      `SELECT * FROM \`${own}\`.person`,
      `UPDATE stock SET on_hand = 1`,
      `DELETE FROM heaps`,
      `DROP VIEW stock`,
    ])
      await expect(reader.query(sql)).rejects.toThrow(/denied/);
    await open({ seesWorth: true });
    expect(await reader.query<unknown[]>('SELECT sku, units, value FROM worth LIMIT 1')).toHaveLength(1);
    await open();
  });

  it('are opened for no name or password that could be SQL, and for no account of the house', async () => {
    for (const name of ["a'b", 'root', house.config.DATABASE_USER, 'A', ''])
      await expect(open({ name })).rejects.toThrow('Name the reader');
    await expect(open({ password: "'; DROP" })).rejects.toThrow('password');
  });

  it('take no other program’s account for the reader', async () => {
    const other = `other_${process.pid}`;
    await house.source.query(`CREATE USER '${other}'@'%' IDENTIFIED BY 'its-own-password-here'`);
    await house.source.query(`GRANT SELECT ON \`${house.config.DATABASE_NAME}\`.item TO '${other}'@'%'`);
    await expect(open({ name: other })).rejects.toThrow('does more than read figures');
    const grants = JSON.stringify(await house.source.query(`SHOW GRANTS FOR '${other}'@'%'`));
    expect(grants).toContain('item');
    await house.source.query(`DROP USER '${other}'@'%'`);
  });

  it('are told in the docs, each with its columns', async () => {
    const docs = readFileSync(resolve(import.meta.dirname, '../../docs/formats.md'), 'utf8');
    for (const [view, { says }] of Object.entries(FIGURES)) {
      const columns = await house.source.query<{ c: string }[]>(
        'SELECT column_name AS c FROM information_schema.columns WHERE table_schema = ? AND table_name = ? ORDER BY ordinal_position',
        [db, view],
      );
      expect(docs.replace(/ +/g, ' ')).toContain(`| \`${view}\` | ${says} | ${columns.map(({ c }) => c).join(', ')} |`);
    }
  });
});
