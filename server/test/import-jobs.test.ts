import { randomUUID } from 'node:crypto';
import { DataSource } from 'typeorm';
import { ActivityService } from '../src/activity/activity.service.js';
import type { ImportDto } from '../src/exchange/exchange.dto.js';
import { ImportJobs } from '../src/exchange/import-jobs.js';
import { Shapes } from '../src/exchange/registry.js';
import { SessionService } from '../src/identity/session.service.js';
import { newLogger } from '../src/platform/platform.module.js';
import { type Caller, House } from './house.js';
import { checked, settled, takenIn, upload } from './importing.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

const count = async (sql: string, values: unknown[] = []) =>
  Number((await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM ${sql}`, values))[0]!.n);
const items = (prefix: string, n: number) =>
  `SKU,Name\n${Array.from({ length: n }, (_, i) => `${prefix}-${i + 1},Thing ${i + 1}\n`).join('')}`;
const made = (prefix: string) => count('item WHERE sku LIKE ?', [`${prefix}-%`]);
const read = async (id: string) => (await maren.get(`imports/${id}`).expect(200)).body as ImportDto;

/** A second server at the same database. */
const otherServer = () =>
  new ImportJobs(
    house.app.get(DataSource),
    house.app.get(Shapes),
    house.app.get(SessionService),
    house.app.get(ActivityService),
    newLogger('silent'),
  );

/** Asks for an import to be taken in while nobody works at it: its lease is with a server that does not answer. */
async function left(run: ImportDto, leaseSeconds: number): Promise<void> {
  await house.source.query(
    `UPDATE import_run SET state = 'applying', done = 0, command_id = ?, leased_until = UTC_TIMESTAMP(3) + INTERVAL ? SECOND WHERE id = ?`,
    [randomUUID(), leaseSeconds, run.id],
  );
}

describe('the work behind an import', () => {
  it('is left to the server that has it while its lease runs, and taken up by another after', async () => {
    const run = await checked(house, maren, 'left.csv', items('LEFT', 5));
    await left(run, 600);
    const other = otherServer();
    other.nudge();
    await other.settled();
    expect(await read(run.id)).toMatchObject({ state: 'applying' });
    expect(await made('LEFT')).toBe(0);
    await left(run, -1);
    other.nudge();
    await other.settled();
    expect(await read(run.id)).toMatchObject({ state: 'applied', made: 5 });
    expect(await made('LEFT')).toBe(5);
  });

  it('is done once, though several servers look for it at once', async () => {
    const run = await checked(house, maren, 'race.csv', items('RACE', 40));
    await left(run, -1);
    const servers = [otherServer(), otherServer(), otherServer(), house.app.get(ImportJobs)];
    for (const s of servers) s.nudge();
    await Promise.all(servers.map((s) => s.settled()));
    expect(await read(run.id)).toMatchObject({ state: 'applied', made: 40, done: 40 });
    expect(await made('RACE')).toBe(40);
    expect(await count(`activity WHERE kind = 'import' AND title LIKE '%race.csv'`)).toBe(1);
  });

  it('writes nothing when it breaks in the middle, and can be asked for again', async () => {
    const shape = house.app.get(Shapes).of('items');
    const run = await checked(house, maren, 'breaks.csv', items('BRK', 2_500));
    const real = shape.write.bind(shape);
    let batches = 0;
    const write = jest.spyOn(shape, 'write').mockImplementation(async (...given) => {
      if (++batches === 3) throw new Error('the disk is full');
      await real(...given);
    });
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    const broken = await settled(house, maren, run.id);
    write.mockRestore();
    expect(batches).toBe(3);
    expect(broken).toMatchObject({ state: 'checked', done: 0, problem: expect.stringContaining('Nothing was taken in') });
    expect(broken.problem).not.toContain('disk');
    expect(await made('BRK')).toBe(0);
    expect(await count('import_made WHERE import_id = ?', [run.id])).toBe(0);
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
    expect(await settled(house, maren, run.id)).toMatchObject({ state: 'applied', made: 2_500, problem: null });
    expect(await made('BRK')).toBe(2_500);
  });

  it('checks again where the house changed since, instead of taking in what is wrong by now', async () => {
    const good = await checked(house, maren, 'barcodes.csv', 'SKU,Pack holds,Barcode\nJAR-227-RD,1,IN-HOUSE-77\n');
    expect(good).toMatchObject({ kind: 'barcodes', faulty: 0 });
    await takenIn(house, maren, 'first.csv', 'SKU,Pack holds,Barcode\nJAR-454-RD,1,IN-HOUSE-77\n');
    await maren.post(`imports/${good.id}/apply`, { goodRowsOnly: false }).expect(204);
    const after = await settled(house, maren, good.id);
    expect(after).toMatchObject({ state: 'checked', faulty: 1, problem: expect.stringContaining('checked again') });
    expect(after.faults[0]).toMatchObject({ value: 'IN-HOUSE-77' });
    expect(await count(`barcode WHERE code = 'IN-HOUSE-77'`)).toBe(1);
  });

  it('is not done for somebody who has left the house', async () => {
    const piet = await house.as('Piet');
    const run = await checked(house, piet, 'piet.csv', items('PIET', 2));
    await left(run, -1);
    await house.source.query(`UPDATE person SET active = 0 WHERE name LIKE 'Piet%'`);
    const other = otherServer();
    other.nudge();
    await other.settled();
    await house.source.query(`UPDATE person SET active = 1 WHERE name LIKE 'Piet%'`);
    expect(await read(run.id)).toMatchObject({ state: 'checked', problem: expect.stringContaining('not with the house any more') });
    expect(await made('PIET')).toBe(0);
  });
});

describe('two imports at once', () => {
  it('of different goods both come in', async () => {
    const runs = await Promise.all([
      checked(house, maren, 'one.csv', items('ONE', 30)),
      checked(house, maren, 'two.csv', items('TWO', 30)),
    ]);
    await Promise.all(runs.map((r) => maren.post(`imports/${r.id}/apply`, { goodRowsOnly: false }).expect(204)));
    for (const r of runs) expect(await settled(house, maren, r.id)).toMatchObject({ state: 'applied', made: 30 });
  });

  it('of the same goods leave each once: the second changes what the first made', async () => {
    const first = await checked(house, maren, 'a.csv', 'SKU,Name\nSAME-1,Here\n');
    const second = await checked(house, maren, 'b.csv', 'SKU,Name\nSAME-1,There\n');
    for (const r of [first, second]) await maren.post(`imports/${r.id}/apply`, { goodRowsOnly: false }).expect(204);
    expect(await settled(house, maren, second.id)).toMatchObject({ state: 'applied', made: 0, changed: 1 });
    expect(await made('SAME')).toBe(1);
    expect((await maren.get('items/SAME-1')).body).toMatchObject({ name: 'There' });
    const early = await maren.post(`imports/${first.id}/undo`).expect(409);
    expect(early.body).toMatchObject({ detail: expect.stringContaining('SAME-1 was changed after this import') });
    await maren.post(`imports/${second.id}/undo`).expect(204);
    expect((await maren.get('items/SAME-1')).body).toMatchObject({ name: 'Here' });
    await maren.post(`imports/${first.id}/undo`).expect(204);
    await maren.get('items/SAME-1').expect(404);
  });
});

describe('an import', () => {
  it('is taken in once, however often it is asked for', async () => {
    const run = await checked(house, maren, 'once.csv', items('ONCE', 3));
    const key = { 'idempotency-key': randomUUID() };
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }, key).expect(204);
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }, key).expect(204);
    await settled(house, maren, run.id);
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(409);
    expect(await made('ONCE')).toBe(3);
  });

  it('cannot be told anew what it holds once it is taken in, nor taken back twice', async () => {
    const run = await takenIn(house, maren, 'done.csv', items('DONE', 1));
    await maren.put(`imports/${run.id}/columns`, { kind: 'items', fields: ['sku', 'name'] }).expect(409);
    await maren.post(`imports/${run.id}/undo`).expect(204);
    const again = await maren.post(`imports/${run.id}/undo`).expect(409);
    expect(again.body).toMatchObject({ detail: expect.stringContaining('taken in') });
    expect(await made('DONE')).toBe(0);
  });

  it('needs its columns to be named, each once, all that must be there', async () => {
    const { id } = (await upload(maren, 'columns.csv', 'a,b,c\n1,2,3\n').expect(201)).body as { id: string };
    const refused = async (fields: string[], says: RegExp, kind = 'items') => {
      const answer = await maren.put(`imports/${id}/columns`, { kind, fields });
      expect(answer.status).toBe(400);
      expect(JSON.stringify(answer.body)).toMatch(says);
    };
    await refused(['sku', 'name'], /3 columns/);
    await refused(['sku', 'sku', 'name'], /Two columns/);
    await refused(['', 'name', ''], /which column holds/);
    await refused(['sku', 'name', 'password'], /no field password/);
    expect(await read(id)).toMatchObject({ state: 'read' });
  });

  it('of a kind that there is not is refused', async () => {
    const { id } = (await upload(maren, 'kinds.csv', 'a\n1\n').expect(201)).body as { id: string };
    expect([400, 404]).toContain((await maren.put(`imports/${id}/columns`, { kind: 'passwords', fields: ['a'] })).status);
  });

  it('is seen by whoever sent it and by those who set up, and by nobody else', async () => {
    const piet = await house.as('Piet');
    const { id } = (await upload(piet, 'mine.csv', items('MINE', 1)).expect(201)).body as { id: string };
    await piet.get(`imports/${id}`).expect(200);
    await maren.get(`imports/${id}`).expect(200);
    const orla = await house.as('Orla');
    await orla.get(`imports/${id}`).expect(404);
    await orla.post(`imports/${id}/apply`, { goodRowsOnly: true }).expect(404);
    await orla.post(`imports/${id}/undo`).expect(404);
    expect(((await orla.get('imports').expect(200)).body.rows as { id: string }[]).some((r) => r.id === id)).toBe(false);
  });

  it('keeps its faults in the order of the file, however many, and gives the rows back as they came', async () => {
    const rows = Array.from({ length: 300 }, (_, i) => (i % 2 === 0 ? `OK-${i},Thing` : `BAD?${i},"=1+${i}"`));
    const run = await checked(house, maren, 'half.csv', `SKU,Name\n${rows.join('\n')}\n`);
    expect(run).toMatchObject({ total: 300, faulty: 150 });
    const numbers = run.faults.map((f) => f.row);
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
    const file = ((await maren.bytes(`imports/${run.id}/faulty.csv`).expect(200)).body as Buffer).toString();
    expect(file.trim().split('\r\n')).toHaveLength(151);
    expect(file).toContain("BAD?1,'=1+1");
    await maren.post(`imports/${run.id}/apply`, { goodRowsOnly: true }).expect(204);
    expect(await settled(house, maren, run.id)).toMatchObject({ state: 'applied', made: 150 });
  });
});
