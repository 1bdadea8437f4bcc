import type { AddressInfo } from 'node:net';
import { DEMO_PASSWORD, DEMO_PEOPLE } from '../src/demo/people.js';
import { House } from './house.js';
import { seeded } from '@vectrum/core/random';
import { Fuzzer, type Sent } from './fuzzing.js';

/** Requests a route; more are sent with FUZZ_ROUNDS, from another seed with FUZZ_SEED. */
const ROUNDS = Number(process.env['FUZZ_ROUNDS'] ?? 12);
const SEED = Number(process.env['FUZZ_SEED'] ?? 20_261);
const AT_ONCE = 8;
const ENDLESS = '/api/live';

let house: House;
let base: string;
let cookie: string;

beforeAll(async () => {
  house = await House.open();
  const server = await house.app.listen(0, '127.0.0.1');
  base = `http://127.0.0.1:${(server as { address: () => AddressInfo }).address().port}`;
  await house.stock('JAR-454-RD', 'A-01-1', 400);
  await signIn();
});
afterAll(() => house.close());

async function signIn(): Promise<void> {
  const maren = DEMO_PEOPLE.find((p) => p.name.startsWith('Maren'));
  // What was sent may have put her out: nothing that is asked of her person counts here.
  await house.source.query('DELETE FROM sign_in_try');
  await house.source.query('UPDATE person SET active = 1, email = ?, duties = ?, sees_costs = 1 WHERE id = 1', [
    maren?.email,
    JSON.stringify(maren?.duties),
  ]);
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: maren?.email, password: DEMO_PASSWORD }),
  });
  cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

async function send(sent: Sent, who: string): Promise<{ status: number; says: string }> {
  const headers = { ...sent.headers, ...(who ? { cookie: who } : {}) };
  const answer = await fetch(base + sent.url, { method: sent.method, headers, ...(sent.body === undefined ? {} : { body: sent.body }) });
  return { status: answer.status, says: (await answer.text()).slice(0, 200) };
}

async function known(): Promise<unknown[]> {
  const texts = await house.source.query<{ v: string }[]>(
    `(SELECT sku AS v FROM item LIMIT 5) UNION (SELECT code FROM place WHERE kind IN ('pick-face','dock','tote') LIMIT 8) UNION (SELECT code FROM supplier LIMIT 2)
     UNION (SELECT code FROM channel) UNION (SELECT code FROM carrier) UNION (SELECT code FROM carton LIMIT 2)`,
  );
  const order = await house.order([['JAR-454-RD', 3]]);
  const round = await house.release(await house.order([['JAR-454-RD', 2]]));
  return [
    ...texts.map((t) => t.v),
    order,
    round,
    '1',
    '2',
    '48',
    '12.50',
    '2026-12-01',
    new Date().toISOString(),
    'csv',
    'items',
    'Anything',
    'a@b.example',
  ];
}

describe('whatever is sent to any route', () => {
  it('is answered, and never by a failure of the server', async () => {
    const fuzzer = new Fuzzer(seeded(SEED), await known());
    const routes = fuzzer.routes.filter(([route]) => route !== ENDLESS);
    const failed: string[] = [];
    const answers = new Map<number, number>();
    let sentCount = 0;
    for (let round = 0; round < ROUNDS; round++) {
      const waiting = routes.map(([route, method]) => fuzzer.request(route, method));
      // One in four comes from nobody.
      const hand = async () => {
        for (let sent = waiting.pop(); sent; sent = waiting.pop()) {
          const { status, says } = await send(sent, sentCount++ % 4 === 0 ? '' : cookie);
          answers.set(status, (answers.get(status) ?? 0) + 1);
          if (status >= 500)
            failed.push(`${sent.method} ${sent.url} ${JSON.stringify(sent.headers)} ${sent.body?.slice(0, 400) ?? ''} → ${status} ${says}`);
        }
      };
      await Promise.all(Array.from({ length: AT_ONCE }, hand));
      await signIn();
    }
    expect(failed).toEqual([]);
    expect(sentCount).toBe(ROUNDS * routes.length);
    // It gets through the door: much of it is understood.
    expect(answers.get(200) ?? 0).toBeGreaterThan(sentCount / 20);
    if (process.env['FUZZ_ROUNDS']) console.log(sentCount, Object.fromEntries(answers));
  }, 900_000);
});
