import { Outbox, type OutboxMessage } from '../src/platform/outbox.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { type Caller, House } from './house.js';

describe('the outbox', () => {
  let house: House;
  let outbox: Outbox;
  let maren: Caller;
  let got: OutboxMessage[];
  let fail: Set<string>;

  beforeAll(async () => {
    house = await House.open();
    outbox = house.app.get(Outbox);
    maren = await house.as('Maren');
    outbox.handle('test', (message) => {
      if (fail.has(message.receiver)) return Promise.reject(new Error('nobody home'));
      got.push(message);
      return Promise.resolve();
    });
  });
  beforeEach(async () => {
    got = [];
    fail = new Set();
    await house.source.query('DELETE FROM outbox');
  });
  afterAll(() => house.close());

  const send = (receiver: string, n: number) =>
    inTransaction(house.source, (tx) => outbox.send(tx, receiver, 'test', { n }, { document: 'DOC' }));
  const due = () => house.source.query('UPDATE outbox SET next_at = UTC_TIMESTAMP(3)');

  it('delivers in order to each receiver', async () => {
    for (let n = 1; n <= 5; n++) await send('shop', n);
    await outbox.runDue();
    expect(got.map((m) => m.payload['n'])).toEqual([1, 2, 3, 4, 5]);
    expect(await outbox.waiting()).toBe(0);
  });

  it('sends nothing of a transaction that was rolled back', async () => {
    await inTransaction(house.source, async (tx) => {
      await outbox.send(tx, 'shop', 'test', { n: 1 });
      throw new Error('changed my mind');
    }).catch(() => undefined);
    await outbox.runDue();
    expect(got).toEqual([]);
  });

  it('holds a receiver’s later messages back until the first is through, and nobody else’s', async () => {
    fail.add('shop');
    await send('shop', 1);
    await send('shop', 2);
    await send('mail', 3);
    await outbox.runDue();
    expect(got.map((m) => m.payload['n'])).toEqual([3]);
    fail.clear();
    await due();
    await outbox.runDue();
    expect(got.map((m) => m.payload['n'])).toEqual([3, 1, 2]);
  });

  it('waits longer after each failure and says why', async () => {
    fail.add('shop');
    await send('shop', 1);
    const waits: number[] = [];
    for (let i = 0; i < 3; i++) {
      await due();
      await outbox.runDue();
      const rows: { s: string; state: string; last_error: string }[] = await house.source.query(
        'SELECT TIMESTAMPDIFF(SECOND, UTC_TIMESTAMP(3), next_at) AS s, state, last_error FROM outbox',
      );
      expect(rows[0]).toMatchObject({ state: 'failing', last_error: 'nobody home' });
      waits.push(Number(rows[0]!.s));
    }
    expect(waits[1]!).toBeGreaterThan(waits[0]!);
    expect(waits[2]!).toBeGreaterThan(waits[1]!);
  });

  it('delivers each message once when several servers look at the same moment', async () => {
    for (let n = 0; n < 30; n++) await send(`shop-${n}`, n);
    await Promise.all([outbox.runDue(), outbox.runDue(), outbox.runDue()]);
    expect(got.map((m) => m.payload['n']).sort((a, b) => Number(a) - Number(b))).toEqual(Array.from({ length: 30 }, (_, n) => n));
  });

  it('shows what waits and tries again when asked', async () => {
    fail.add('shop');
    await send('shop', 1);
    await outbox.runDue();
    const [row] = (await maren.get('outbox').expect(200)).body.rows as { id: number; state: string; attempts: number; document: string }[];
    expect(row).toMatchObject({ state: 'failing', attempts: 1, document: 'DOC' });
    fail.clear();
    await maren.post(`outbox/${row!.id}/retry`).expect(204);
    await outbox.runDue();
    expect(got).toHaveLength(1);
    await maren.post(`outbox/${row!.id}/retry`).expect(404);
  });

  it('keeps a message whose kind nobody delivers', async () => {
    await inTransaction(house.source, (tx) => outbox.send(tx, 'moon', 'unheard-of', {}));
    await outbox.runDue();
    expect(await outbox.waiting()).toBe(1);
  });
});
