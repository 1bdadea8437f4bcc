import { type AddressInfo } from 'node:net';
import { House } from './house.js';

const WITHIN_MS = 1_000;

describe('live updates', () => {
  let house: House;
  let base: string;

  beforeAll(async () => {
    house = await House.open();
    await house.app.listen(0, '127.0.0.1');
    base = `http://127.0.0.1:${(house.app.getHttpServer().address() as AddressInfo).port}`;
  });
  afterAll(() => house.close());

  async function signIn(first: string): Promise<string> {
    const answer = await fetch(`${base}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: `${first}@tarnthistle.example`, password: 'thistle-and-tarn' }),
    });
    return String(answer.headers.getSetCookie()[0]).split(';')[0]!;
  }

  /** Listens until a line of the tape holds a text; returns how long that took from `begun`. */
  async function hears(cookie: string, text: string, begun: () => number, patience = 3_000): Promise<number | null> {
    const stop = new AbortController();
    const timer = setTimeout(() => stop.abort(), patience);
    try {
      const stream = await fetch(`${base}/api/live`, { headers: { cookie }, signal: stop.signal });
      for await (const part of stream.body as unknown as AsyncIterable<Uint8Array>) {
        if (Buffer.from(part).toString().includes(text)) return Date.now() - begun();
      }
    } catch {
      return null;
    } finally {
      clearTimeout(timer);
      stop.abort();
    }
    return null;
  }

  it('show a scan on another screen within a second, and not at another site', async () => {
    const maren = await signIn('maren');
    const ines = await signIn('ines');
    let at = 0;
    const office = hears(maren, 'Unknown code: 50777', () => at);
    const millrace = hears(ines, 'Unknown code: 50777', () => at, 2_500);
    await new Promise((done) => setTimeout(done, 500));
    const caller = await house.as('Ruben');
    at = Date.now();
    await caller
      .floor({ kind: 'refused', band: 'unknown', title: '50777', detail: 'x', code: '50777', how: 'scanned', siteId: 2 })
      .expect(200);
    expect(await office).toBeLessThan(WITHIN_MS);
    expect(await millrace).toBeNull();
  });

  it.each([
    [
      'somebody is signed out everywhere',
      async () => {
        const maren = await house.as('Maren');
        const people = (await maren.get('people')).body as { id: number; name: string; version: number }[];
        await maren.post(`people/${people.find((p) => p.name.startsWith('Ruben'))!.id}/sign-out`).expect(204);
      },
    ],
    [
      'they sign out themselves',
      async (cookie: string) => {
        await fetch(`${base}/api/session`, { method: 'DELETE', headers: { cookie } });
      },
    ],
    [
      'they leave the house',
      async () => {
        await house.source.query(`UPDATE person SET active = 0 WHERE name LIKE 'Ruben%'`);
      },
    ],
  ])('end at once where %s, and nobody else’s do', async (_, ends) => {
    await house.source.query(`UPDATE person SET active = 1 WHERE name LIKE 'Ruben%'`);
    const [ruben, dilys] = [await signIn('ruben'), await signIn('dilys')];
    const open = await fetch(`${base}/api/live`, { headers: { cookie: ruben } });
    const other = await fetch(`${base}/api/live`, { headers: { cookie: dilys } });
    const ended = (async () => {
      for await (const _part of open.body as unknown as AsyncIterable<Uint8Array>);
      return Date.now();
    })();
    await new Promise((done) => setTimeout(done, 300));
    const begun = Date.now();
    await ends(ruben);
    expect((await ended) - begun).toBeLessThan(3_000);
    const still = await Promise.race([
      other.body!.getReader().closed.then(() => false),
      new Promise((done) => setTimeout(() => done(true), 400)),
    ]);
    expect(still).toBe(true);
    expect((await fetch(`${base}/api/live`, { headers: { cookie: ruben } })).status).toBe(401);
    await house.source.query(`UPDATE person SET active = 1 WHERE name LIKE 'Ruben%'`);
  });

  it('are closed to those who are not signed in', async () => {
    expect((await fetch(`${base}/api/live`)).status).toBe(401);
  });
});
