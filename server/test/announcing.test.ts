import { type Caller, House, keyed } from './house.js';
import { Outbox } from '../src/platform/index.js';

let house: House;
let orla: Caller;
let maren: Caller;
let ines: Caller;
beforeAll(async () => {
  house = await House.open();
  [orla, maren, ines] = await Promise.all([house.as('Orla'), house.as('Maren'), house.as('Ines')]);
  await house.stock('JAR-454-RD', 'A-01-1', 400);
});
afterAll(() => house.close());

const key = async (more: object = {}) =>
  ((await orla.post('orders', keyed({ quote: false, ...more })).expect(201)).body as { code: string }).code;
const wishes = (who: Caller, mail: string) => who.put('preferences/announcements', { value: { mail } }).expect(204);
const mails = async () =>
  (
    await house.source.query<{ payload: string | { to: string; subject: string } }[]>(
      `SELECT payload FROM outbox WHERE kind = 'mail.new-order' ORDER BY id`,
    )
  ).map(({ payload }) => (typeof payload === 'string' ? (JSON.parse(payload) as { to: string; subject: string }) : payload));
const line = async (who: Caller) =>
  (await who.get('line').expect(200)).body as { urgent: { code: string; round: string | null }[]; urgentCount: number };
const release = async (code: string) => {
  const { version } = (await maren.get(`orders/${code}`).expect(200)).body as { version: number };
  return ((await maren.post(`orders/${code}/release`, {}, { 'if-match': `"${version}"` })).body as { round: string }).round;
};

it('tells by mail whoever wished it, of all or of urgent ones, and nobody of what they keyed themselves', async () => {
  await wishes(maren, 'urgent');
  await wishes(ines, 'all');
  await wishes(orla, 'all');
  const [usual, urgent] = [await key(), await key({ speed: 'express' })];
  await key({ quote: true });
  const sent = await mails();
  expect(sent.map((m) => [m.to.split('@')[0], m.subject.split(',')[0]]).sort()).toEqual(
    [
      ['ines', usual],
      ['ines', `Urgent: ${urgent}`],
      ['maren', `Urgent: ${urgent}`],
    ].sort(),
  );
  await wishes(ines, 'none');
  await key({ priority: 3 });
  expect((await mails()).length).toBe(sent.length + 1);
  expect(house.app.get(Outbox)).toBeTruthy();
});

it('shows an urgent order on every page until somebody begins with it', async () => {
  const before = (await line(maren)).urgentCount;
  const code = await key({ speed: 'express', lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '3', price: '0.95' }] });
  const shown = await line(maren);
  expect(shown.urgentCount).toBe(before + 1);
  const list = (await maren.get('orders?show=urgent').expect(200)).body as { rows: { code: string }[]; counts: { urgent: number } };
  expect(list.rows.map((o) => o.code)).toContain(code);
  expect(list.counts.urgent).toBe(list.rows.length);
  const round = await release(code);
  expect(round).toBeTruthy();
  const rounds = (await ines.get('rounds').expect(200)).body as { rows: { code: string; urgent: boolean }[] };
  expect(rounds.rows.find((r) => r.code === round)).toMatchObject({ urgent: true });
});

it('puts an urgent round before one whose promise is sooner', async () => {
  const usual = await release(await key({ promisedAt: new Date(Date.now() + 3_600_000).toISOString() }));
  const urgent = await release(await key({ priority: 1, promisedAt: new Date(Date.now() + 90_000_000).toISOString() }));
  const order = ((await ines.get('rounds').expect(200)).body as { rows: { code: string }[] }).rows.map((r) => r.code);
  expect(order.indexOf(urgent)).toBeGreaterThanOrEqual(0);
  expect(order.indexOf(urgent)).toBeLessThan(order.indexOf(usual));
});
