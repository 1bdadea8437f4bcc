import { type AddressInfo, connect, createServer, type Server, type Socket } from 'node:net';
import { DataSource } from 'typeorm';
import { Outbox } from '../src/platform/outbox.js';
import { dataSourceOptions, limited } from '../src/platform/database/data-source.js';
import { prepared } from '../src/platform/database/prepared.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { Mailer } from '../src/platform/mailer.js';
import { isAway } from '../src/platform/problem.filter.js';
import { House } from './house.js';

let house: House;
beforeAll(async () => {
  house = await House.open();
});
afterAll(() => house.close());

const portOf = (server: Server) => (server.address() as AddressInfo).port;
const listening = (server: Server) => new Promise<number>((done) => server.listen(0, '127.0.0.1', () => done(portOf(server))));
const until = async (is: () => boolean | Promise<boolean>, ms = 5_000) => {
  for (const end = Date.now() + ms; Date.now() < end; await new Promise((r) => setTimeout(r, 20))) if (await is()) return true;
  return false;
};

describe('a receiver that takes a message and says nothing', () => {
  it('holds up no other, not even those that come later', async () => {
    const outbox = house.app.get(Outbox);
    const got: string[] = [];
    let answer: () => void = () => undefined;
    outbox.handle('mute', ({ receiver }) => {
      if (receiver !== 'mute') return Promise.resolve(void got.push(receiver));
      return new Promise((done) => (answer = done));
    });
    const send = (receiver: string) => inTransaction(house.source, (tx) => outbox.send(tx, receiver, 'mute', {}));
    await send('mute');
    await send('one');
    outbox.nudge();
    expect(await until(() => got.includes('one'))).toBe(true);
    await send('two');
    outbox.nudge();
    expect(await until(() => got.includes('two'))).toBe(true);
    expect(await outbox.waiting()).toBe(1);
    answer();
    await outbox.settled();
    expect(await outbox.waiting()).toBe(0);
  });

  it.each(['nothing at all', 'a greeting, and then nothing'])('as a mail server does that sends %s, and is given up', async (says) => {
    const held: Socket[] = [];
    const mute = createServer((socket) => {
      held.push(socket);
      if (says.startsWith('a greeting')) socket.write('220 mute.example ESMTP\r\n');
    });
    const mailer = new Mailer({ SMTP_URL: `smtp://127.0.0.1:${await listening(mute)}`, MAIL_FROM: 'stores@example.org' } as never);
    const begun = Date.now();
    await expect(mailer.send({ id: 'x', to: 'a@example.org', subject: 's', text: 't', attachments: [] })).rejects.toThrow();
    expect(Date.now() - begun).toBeLessThan(15_000);
    for (const socket of held) socket.destroy();
    mute.close();
  });
});

/** Stands between a server and its database, and can stop passing anything on. */
class Valve {
  private readonly server = createServer((near) => {
    const far = connect(house.config.DATABASE_PORT, house.config.DATABASE_HOST);
    this.sockets.add(near);
    near.on('data', (part) => this.pass(far, part));
    far.on('data', (part) => this.pass(near, part));
    for (const [one, other] of [[near, far] as const, [far, near] as const]) {
      one.on('close', () => other.destroy());
      one.on('error', () => other.destroy());
    }
  });
  private readonly kept: [Socket, Buffer][] = [];
  private readonly sockets = new Set<Socket>();
  private isShut = false;

  open = () => listening(this.server);
  shut() {
    this.isShut = true;
  }
  goOn() {
    this.isShut = false;
    for (const [to, part] of this.kept.splice(0)) if (!to.destroyed) to.write(part);
  }
  close() {
    this.server.close();
    for (const socket of this.sockets) socket.destroy();
  }
  private pass(to: Socket, part: Buffer) {
    if (this.isShut) this.kept.push([to, part]);
    else to.write(part);
  }
}

describe('a database that stands still', () => {
  it('is given up statement by statement, said to be away, and taken up again with answers to what was asked', async () => {
    const valve = new Valve();
    const config = { ...house.config, DATABASE_PORT: await valve.open(), DATABASE_HOST: '127.0.0.1', DATABASE_CONNECTIONS: 2 };
    const source = await limited(new DataSource(dataSourceOptions(config, [], 700))).initialize();
    expect(await source.query('SELECT 1 AS n')).toEqual([{ n: 1 }]);
    valve.shut();
    const begun = Date.now();
    const asked = await Promise.allSettled([
      source.query('SELECT 2 AS n'),
      inTransaction(source, (tx) => tx.query('SELECT 3 AS n')),
      // One that is to be planned first.
      prepared(source, 'SELECT id FROM site WHERE id = ?', [4]),
    ]);
    expect(Date.now() - begun).toBeLessThan(10_000);
    for (const answer of asked) expect(answer.status === 'rejected' && isAway(answer.reason)).toBe(true);
    valve.goOn();
    await until(async () =>
      source.query('SELECT 5 AS n').then(
        () => true,
        () => false,
      ),
    );
    expect(await Promise.all([6, 7, 8, 9].map((n) => source.query(`SELECT ${n} AS n`)))).toEqual([6, 7, 8, 9].map((n) => [{ n }]));
    await source.destroy();
    valve.close();
  });

  it('is told by 503 and when to ask again, with no word of its inside', async () => {
    const valve = new Valve();
    const app = await house.another({ DATABASE_PORT: await valve.open(), DATABASE_HOST: '127.0.0.1' });
    await app.listen(0, '127.0.0.1');
    const base = await app.getUrl();
    const health = async () => [(await fetch(`${base}/health/live`)).status, (await fetch(`${base}/health/ready`)).status];
    expect((await fetch(`${base}/api/sign-in-page`)).status).toBe(200);
    expect(await health()).toEqual([200, 200]);
    valve.close();
    expect(await health()).toEqual([200, 503]);
    for (const path of ['sign-in-page', 'sign-in-page']) {
      const answer = await fetch(`${base}/api/${path}`);
      expect([answer.status, answer.headers.get('retry-after')]).toEqual([503, '5']);
      expect(await answer.text()).not.toMatch(/ECONN|TypeORM|driver|127\.0/i);
    }
    await app.close();
  });
});

describe('a server that is told to end', () => {
  it('answers what is under way, ends streams, lets nobody new in, and is gone in time', async () => {
    const app = await house.another();
    await app.listen(0, '127.0.0.1');
    const base = await app.getUrl();
    const cookie = (await house.as('Maren')).cookie;
    const live = await fetch(`${base}/api/live`, { headers: { cookie } });
    const ended = (async () => {
      for await (const _ of live.body as unknown as AsyncIterable<Uint8Array>);
      return true;
    })().catch(() => true);
    // A request that waits for somebody's lock is under way.
    const holder = house.source.createQueryRunner();
    await holder.startTransaction();
    await holder.query(`SELECT * FROM preference FOR UPDATE`);
    const slow = fetch(`${base}/api/preferences/columns`, {
      method: 'PUT',
      headers: { cookie, 'content-type': 'application/json', 'idempotency-key': crypto.randomUUID() },
      body: JSON.stringify({ value: { shown: ['sku'] } }),
    });
    await new Promise((r) => setTimeout(r, 300));
    const begun = Date.now();
    const closing = app.close();
    await new Promise((r) => setTimeout(r, 300));
    await expect(fetch(`${base}/api/sign-in-page`)).rejects.toThrow();
    await holder.rollbackTransaction();
    await holder.release();
    expect((await slow).status).toBeLessThan(300);
    await closing;
    expect(Date.now() - begun).toBeLessThan(6_000);
    expect(await ended).toBe(true);
  });
});
