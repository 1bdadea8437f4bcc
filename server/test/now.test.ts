import { one, update } from '../src/platform/index.js';
import { type Caller, House } from './house.js';

interface Now {
  promised: { code: string; promisedAt: string; state: string }[];
  departures: { name: string; at: string }[];
  lastLeavesAt: string;
}
interface Stage {
  stage: string;
  count: number;
  hours: number | null;
  hoursADay: number | null;
}

const HOUR_MS = 3_600_000;
/** A time zone in which it is about noon now, so that "today" has hours on both sides whenever the test runs. */
function zoneAtNoon(): string {
  const ahead = 12 - new Date().getUTCHours();
  return ahead === 0 ? 'UTC' : `Etc/GMT${ahead > 0 ? '-' : '+'}${Math.abs(ahead)}`;
}
const wall = (hour: number) => `${String(hour).padStart(2, '0')}:00`;

let house: House;
let owner: Caller;

beforeAll(async () => {
  house = await House.open();
  owner = await house.as('Maren');
  await update(house.source, 'site', { id: 1 }, { time_zone: zoneAtNoon(), working_days: 'YYYYYYY' });
  await house.source.query('UPDATE site SET working_days = ? WHERE id <> 1', ['YYYYYYY']);
  await house.source.query('DELETE FROM departure');
  await house.stock('JAR-454-RD', 'A-01-1', 500);
});
afterAll(() => house.close());

/** Millrace's vans, by the hour on its wall. */
async function vans(...hours: number[]): Promise<void> {
  await house.source.query('DELETE FROM departure');
  for (const hour of hours)
    await house.source.query('INSERT INTO departure (site_id, name, leaves_at, closes_minutes) VALUES (1, ?, ?, 0)', [
      `Van at ${hour}`,
      `${wall(hour)}:00`,
    ]);
}
const now = async () => (await owner.get('now').expect(200)).body as Now;
const order = (promisedAt: Date) => house.order([['JAR-454-RD', 1]], { promisedAt: promisedAt.toISOString() });
const at = (iso: string) => new Date(iso).getTime();

describe('what Now shows of the day', () => {
  it('is today as long as a van is still to leave', async () => {
    await vans(9, 16, 19);
    const { departures, lastLeavesAt } = await now();
    // Other sites have no van, and show none.
    expect(departures.map((d) => d.name)).toEqual(['Van at 16', 'Van at 19']);
    expect(lastLeavesAt).toBe(departures[1]?.at);
    const today = await order(new Date(lastLeavesAt));
    const tomorrow = await order(new Date(at(lastLeavesAt) + 24 * HOUR_MS));
    const codes = (await now()).promised.map((o) => o.code);
    expect(codes).toContain(today);
    expect(codes).not.toContain(tomorrow);
  });

  it('goes on to the next working day once the last van has left, with what is still open of today', async () => {
    await vans(16);
    const evening = new Date((await now()).lastLeavesAt);
    await vans(9);
    const { departures, lastLeavesAt } = await now();
    expect(at(lastLeavesAt)).toBeGreaterThan(evening.getTime());
    expect(departures.map((d) => d.at)).toEqual([lastLeavesAt]);
    const left = await order(evening);
    const next = await order(new Date(lastLeavesAt));
    const gone = await order(evening);
    await update(house.source, 'sales_order', { code: gone }, { state: 'shipped' });
    const shown = (await now()).promised.map((o) => o.code);
    expect(shown).toEqual(expect.arrayContaining([left, next]));
    expect(shown).not.toContain(gone);
    await vans(16);
    expect((await now()).promised.map((o) => o.code)).toContain(gone);
    await update(house.source, 'sales_order', { code: gone }, { state: 'open' });
  });

  it('names the same departure on every page', async () => {
    await vans(14, 18);
    const { departures } = await now();
    const [first, second] = departures;
    const promise = new Date(at(second?.at ?? '') - HOUR_MS);
    const code = await order(promise);
    const round = await house.release(code);
    const listed = ((await owner.get('orders')).body.rows as { code: string; leavesAt: string }[]).find((o) => o.code === code);
    expect(listed?.leavesAt).toBe(first?.at);
    expect((await owner.get(`orders/${code}`)).body).toMatchObject({ leavesAt: first?.at });
    const rounds = (await owner.get('rounds')).body.rows as { code: string; leavesAt: string }[];
    expect(rounds.find((r) => r.code === round)?.leavesAt).toBe(first?.at);
    await house.pickAll(round);
    const queue = (await owner.get('bench/queue')).body.rows as { order: string; leavesAt: string }[];
    expect(queue.find((o) => o.order === code)?.leavesAt).toBe(first?.at);
  });
});

describe('what the Line says of a stage', () => {
  const stage = async (name: string) =>
    ((await owner.get('line').expect(200)).body as { stages: Stage[] }).stages.find((s) => s.stage === name);

  it('is nothing but the queue where nobody has worked at it', async () => {
    expect(await stage('dispatch')).toMatchObject({ hours: null, hoursADay: null });
  });

  it('is measured from what people did in the last fortnight', async () => {
    const other = await House.open();
    try {
      const maren = await other.as('Maren');
      const ines = await one<{ id: number }>(other.source, `SELECT id FROM person WHERE name LIKE 'Ines%'`);
      // Yesterday: four rounds of three picks, each pick two minutes after the one before, and a break in between.
      for (let n = 0; n < 12; n++)
        await other.source.query(
          `INSERT INTO activity (at, device_at, person_id, site_id, kind, glyph, title, document) VALUES (UTC_TIMESTAMP(), UTC_DATE() - INTERVAL 14 HOUR + INTERVAL ? MINUTE, ?, 1, 'pick', 'full', 'a pick', ?)`,
          [n * 2 + (n >= 6 ? 120 : 0), ines?.id, `S-${Math.floor(n / 3)}`],
        );
      await other.stock('JAR-454-RD', 'A-01-1', 10);
      await other.release(await other.order([['JAR-454-RD', 1]]));
      const found = ((await maren.get('line')).body as { stages: Stage[] }).stages.find((s) => s.stage === 'picking');
      // Ten picks of two minutes, and two that came after a pause and count five: thirty minutes for four rounds.
      expect(found).toMatchObject({ count: 1, hours: 0.13, hoursADay: 0.5 });
    } finally {
      await other.close();
    }
  });
});
