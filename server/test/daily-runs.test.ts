import { DailyRuns } from '../src/picking/index.js';
import { type Caller, House } from './house.js';

interface Run {
  id: number;
  version: number;
  active: boolean;
  lastSays: string | null;
  person: string;
}

/** Orders are sent to picking by rule, once a working day. */
describe('a daily run', () => {
  let house: House;
  let maren: Caller;
  const rule = { siteId: 1, runsAt: '00:05', vanAt: null, channelId: null, mostStops: null, pooled: false, active: true };

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    await house.source.query(`UPDATE site SET working_days = 'YYYYYYY' WHERE id = 1`);
    // A van leaves today at whatever hour this is run.
    await house.source.query(`INSERT INTO departure (site_id, name, leaves_at, closes_minutes) VALUES (1, 'Night van', '23:59', 0)`);
  });
  afterAll(() => house.close());

  const list = async () => ((await maren.get('daily-runs').expect(200)).body as { runs: Run[] }).runs;
  const one = async (id: number) => (await list()).find((r) => r.id === id)!;
  const added = async (more: object = {}) => ((await maren.post('daily-runs', { ...rule, ...more }).expect(201)).body as { id: number }).id;
  /** Tomorrow at noon by the clock of the site, when what was set up today is due for the first time. */
  const tomorrow = () => new Date(Date.now() + 86_400_000);
  const runs = () => house.app.get(DailyRuns);
  const order = async (code: string) => (await maren.get(`orders/${code}`)).body as { state: string; version: number };
  const said = (answer: { body: unknown }) => JSON.stringify(answer.body);
  /** All that waits is due by then. */
  const dueAll = () => house.source.query(`UPDATE sales_order SET promised_at = UTC_TIMESTAMP() - INTERVAL 1 DAY WHERE state = 'open'`);

  it('shows what it would send, sends it once, and says what came of it', async () => {
    await house.stock('SMK-LGE', 'A-10-1', 9);
    await house.stock('BRSH-BEE', 'B-02-1', 9);
    const codes = [await house.order([['SMK-LGE', 3]]), await house.order([['BRSH-BEE', 2], ['SMK-LGE', 1]])]; // prettier-ignore
    await dueAll();
    const id = await added();
    const preview = (await maren.get(`daily-runs/${id}/preview`).expect(200)).body as {
      rounds: { orders: string[]; metres: number }[];
      left: unknown[];
    };
    expect(preview.rounds.flatMap((r) => r.orders)).toEqual(expect.arrayContaining(codes));
    expect(preview.rounds[0]!.metres).toBeGreaterThan(0);
    for (const code of codes) expect((await order(code)).state).toBe('open');
    // What is set up after its time is not due on the same day.
    expect(await runs().look()).toBe(0);
    const due = tomorrow();
    expect((await Promise.all([runs().look(due), runs().look(due)])).reduce((a, b) => a + b)).toBe(1);
    for (const code of codes) expect((await order(code)).state).toBe('released');
    expect((await one(id)).lastSays).toMatch(/orders? sent in \d+ rounds?/);
    expect(await runs().look(due)).toBe(0);
    await maren
      .delete(`daily-runs/${id}`)
      .set('if-match', `"${(await one(id)).version}"`)
      .expect(200);
  });

  it('leaves what bins open to picking lack, what has more stops, and what is of another channel', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 2);
    await house.stock('TOOL-STD', 'DOCK-1', 5);
    await house.stock('UNC-FORK', 'B-06-1', 5);
    const whole = await house.order([['UNC-FORK', 1]]);
    const lacking = await house.order([['TOOL-STD', 4]]);
    const long = await house.order([['UNC-FORK', 1], ['TOOL-STD', 1]]); // prettier-ignore
    await dueAll();
    const id = await added({ mostStops: 1 });
    const { rounds, left } = (await maren.get(`daily-runs/${id}/preview`)).body as {
      rounds: { orders: string[] }[];
      left: { order: string; why: string }[];
    };
    expect(rounds.flatMap((r) => r.orders)).toContain(whole);
    expect(rounds.flatMap((r) => r.orders)).not.toContain(long);
    expect(left.find((l) => l.order === lacking)!.why).toContain('bins open to picking lack');
    const others = await added({ channelId: 2 });
    const of = ((await maren.get(`daily-runs/${others}/preview`)).body as { rounds: { orders: string[] }[] }).rounds;
    expect(of.flatMap((r) => r.orders)).not.toContain(whole);
  });

  it('is done in the name of whoever keeps it, and not once they may release no more', async () => {
    await house.source.query('DELETE FROM daily_run');
    const id = await added();
    await house.source.query(`UPDATE person SET duties = '["pick"]' WHERE id = ?`, [maren.personId]);
    const ok = await runs().look(tomorrow());
    await house.source.query(`UPDATE person SET duties = '["owner"]' WHERE id = ?`, [maren.personId]);
    expect(ok).toBe(1);
    expect((await one(id)).lastSays).toContain('may not release here any more');
  });

  it('rests on days on which nobody works, and while it is switched off', async () => {
    await house.source.query('DELETE FROM daily_run');
    const id = await added();
    await house.source.query(`UPDATE site SET working_days = 'NNNNNNN' WHERE id = 1`);
    expect(await runs().look(tomorrow())).toBe(0);
    await house.source.query(`UPDATE site SET working_days = 'YYYYYYY' WHERE id = 1`);
    const { version } = await one(id);
    await maren.put(`daily-runs/${id}`, { ...rule, active: false }, { 'if-match': `"${version}"` }).expect(200);
    expect(await runs().look(tomorrow())).toBe(0);
    expect((await maren.put(`daily-runs/${id}`, rule, { 'if-match': `"${version}"` })).status).toBe(412);
  });

  it('names what is wrong with a rule', async () => {
    const bad = async (more: object) => said(await maren.post('daily-runs', { ...rule, ...more }).expect(400));
    expect(await bad({ runsAt: '7.30' })).toContain('07:30');
    expect(await bad({ vanAt: '03:33' })).toContain('No van leaves this site then');
    expect(await bad({ vanAt: '15:30', runsAt: '16:00' })).toContain('before its van leaves');
    expect(await bad({ channelId: 999 })).toContain('no such channel');
    const ines = await house.as('Ines');
    await ines.get('daily-runs').expect(403);
    await ines.post('daily-runs', rule).expect(403);
  });
});
