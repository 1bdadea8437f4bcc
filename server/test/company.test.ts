import { type Caller, House } from './house.js';

let house: House;
let maren: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
});
afterAll(() => house.close());

interface Calendar {
  siteId: number;
  timeZone: string;
  workingDays: string;
  departures: { name: string; carrier: string; leavesAt: string; closesMinutes: number }[];
  version: number;
}
interface Money {
  version: number;
  currencies: { code: string; rate: string; asOf: string }[];
  taxRates: { code: string; name: string; percent: string }[];
}
const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;
const calendar = async (site = 2) =>
  ((await maren.get('company/calendars').expect(200)).body as Calendar[]).find((c) => c.siteId === site)!;
const setCalendar = (c: Calendar, more: Partial<Calendar> = {}) => {
  const { workingDays, timeZone, departures } = { ...c, ...more };
  return maren.put(`company/calendars/${c.siteId}`, { workingDays, timeZone, departures }, { 'if-match': `"${c.version}"` });
};
const money = async () => (await maren.get('company/money').expect(200)).body as Money;
const setMoney = ({ version, ...kept }: Money, more: Partial<Money> = {}, who: Caller = maren) =>
  who.put('company/money', { ...kept, ...more }, { 'if-match': `"${version}"` });
const setting = async (name: string) =>
  ((await maren.get('company/settings').expect(200)).body as { name: string; value: string; standard: string; says: string }[]).find(
    (s) => s.name === name,
  )!;

describe('choices of the company', () => {
  it('each say what they change, and begin with what is usual', async () => {
    const all = (await maren.get('company/settings').expect(200)).body as { says: string; label: string }[];
    expect(all.length).toBeGreaterThan(8);
    for (const s of all) expect(s.says).toMatch(/^[A-Z].{20,}\.$/);
    expect(new Set(all.map((s) => s.label)).size).toBe(all.length);
  });

  it.each([
    ['overPercent', '101'],
    ['overPercent', '-1'],
    ['overPercent', '2.5'],
    ['overPercent', 'some'],
    ['fillRemaining', 'maybe'],
    ['units', 'stones and furlongs'],
    ['inHousePrefix', '95'],
    ['companyName', 'x'.repeat(81)],
  ])('refuse %s = %s, and stay as they were', async (name, value) => {
    const before = await setting(name);
    const answer = await maren.put(`company/settings/${name}`, { value }).expect(400);
    expect(said(answer)).toMatch(/.{8,}/);
    expect((await setting(name)).value).toBe(before.value);
  });

  it('that there are not are said not to be there', async () => {
    for (const name of ['nothing', 'constructor', '__proto__', 'duties'])
      expect([400, 404]).toContain((await maren.put(`company/settings/${name}`, { value: '1' })).status);
  });

  it('are told on the tape with what they were set to', async () => {
    await maren.put('company/settings/overPercent', { value: '12' }).expect(204);
    expect((await setting('overPercent')).value).toBe('12');
    expect(JSON.stringify((await maren.get('tape').expect(200)).body)).toMatch(/Too many accepted/);
    await maren.put('company/settings/overPercent', { value: '5' }).expect(204);
  });
});

describe('working days and departures', () => {
  const van = { name: 'Evening van', carrier: '', leavesAt: '18:15', closesMinutes: 45 };

  it('are kept from the version that was seen', async () => {
    const before = await calendar();
    await setCalendar(before, { workingDays: 'YYYYYYN', departures: [van] }).expect(204);
    expect(await calendar()).toMatchObject({ workingDays: 'YYYYYYN', departures: [van], version: before.version + 1 });
    await setCalendar(before, { workingDays: 'YNNNNNN' }).expect(412);
    expect((await calendar()).workingDays).toBe('YYYYYYN');
  });

  it.each([
    ['no working day', { workingDays: 'NNNNNNN' }],
    ['six days', { workingDays: 'YYYYYY' }],
    ['a zone that there is not', { timeZone: 'Mars/Olympus' }],
    ['a time that there is not', { departures: [{ ...van, leavesAt: '24:00' }] }],
    ['a carrier that there is not', { departures: [{ ...van, carrier: 'NOBODY' }] }],
    ['a van without a name', { departures: [{ ...van, name: '' }] }],
    ['a close a day before', { departures: [{ ...van, closesMinutes: 1440 }] }],
    ['too many vans', { departures: Array.from({ length: 13 }, () => van) }],
  ])('are refused with %s, and nothing of them is kept', async (_, more) => {
    const before = await calendar();
    await setCalendar(before, more).expect(400);
    expect(await calendar()).toEqual(before);
  });

  it('of other sites are not shown to whoever does not work there', async () => {
    const ines = await house.as('Ines');
    const sites = ((await ines.get('company/calendars').expect(200)).body as Calendar[]).map((c) => c.siteId);
    expect(sites).toEqual([1]);
  });
});

describe('currencies and taxes', () => {
  it('come back as they were typed', async () => {
    const before = await money();
    const currencies = [...before.currencies.filter((c) => c.code !== 'SEK'), { code: 'SEK', rate: '0.0742', asOf: '2026-05-14' }];
    await setMoney(before, { currencies }).expect(204);
    const sek = (await money()).currencies.find((c) => c.code === 'SEK');
    expect(Number(sek?.rate)).toBe(0.0742);
    expect(sek?.asOf).toBe('2026-05-14');
    await setMoney(await money(), { currencies: before.currencies }).expect(204);
    expect(await money()).toEqual({ ...before, version: before.version + 2 });
  });

  it.each([
    ['a small code', { code: 'sek', rate: '1', asOf: '2026-05-14' }],
    ['nought', { code: 'SEK', rate: '0.000', asOf: '2026-05-14' }],
    ['less than nought', { code: 'SEK', rate: '-1', asOf: '2026-05-14' }],
    ['a comma', { code: 'SEK', rate: '0,07', asOf: '2026-05-14' }],
    ['no day', { code: 'SEK', rate: '0.07', asOf: 'May' }],
  ])('refuse a rate with %s', async (_, currency) => {
    const before = await money();
    await setMoney(before, { currencies: [currency] }).expect(400);
    expect(await money()).toEqual(before);
  });

  it('are replaced from the version that was seen, by one of two at once', async () => {
    const before = await money();
    const sek = (rate: string) => [...before.currencies.filter((c) => c.code !== 'SEK'), { code: 'SEK', rate, asOf: '2026-05-14' }];
    const answers = await Promise.all([setMoney(before, { currencies: sek('0.07') }), setMoney(before, { currencies: sek('0.08') })]);
    expect(answers.map((a) => a.status).sort()).toEqual([204, 412]);
    await setMoney(before, {}).expect(412);
    await setMoney(await money(), { currencies: before.currencies }).expect(204);
  });

  it('are set by those who set up', async () => {
    const piet = await house.as('Piet');
    await piet.get('company/money').expect(200);
    await setMoney(await money(), {}, piet).expect(403);
  });
});

describe('number series', () => {
  it('say what the next number is', async () => {
    const series = (await maren.get('company/series').expect(200)).body as { name: string; next: string; number: number }[];
    expect(series.map((s) => s.name).sort()).toEqual(['A', 'B', 'C', 'G', 'H', 'I', 'J', 'K', 'N', 'P', 'Q', 'R', 'S', 'T', 'Z']);
    for (const s of series) expect(s.next).toMatch(new RegExp(`^${s.name}-\\d+$`));
    const sales = series.find((s) => s.name === 'S')!;
    expect(await house.order([['JAR-454-RD', 1]])).toBe(sales.next);
  });

  it('give each order its own number when many come at once', async () => {
    const orders = await Promise.all(Array.from({ length: 12 }, () => house.order([['JAR-227-RD', 1]])));
    expect(new Set(orders).size).toBe(12);
  });

  it.each([0, -4, 1.5, 100_000_000])('do not go on from %d', async (number) => {
    await maren.put('company/series', { name: 'P', number }).expect(400);
  });

  it('that there are not cannot be moved', async () => {
    await maren.put('company/series', { name: 'X', number: 5 }).expect(400);
  });
});

describe('a new site', () => {
  it.each([
    ['a code with a hyphen', { code: 'OLD-1', name: 'Old' }],
    ['a code of one letter', { code: 'X', name: 'Old' }],
    ['no name', { code: 'OLDX', name: '' }],
  ])('is refused with %s', async (_, body) => {
    await maren.post('company/sites', body).expect(400);
  });

  it('is made by one of two who make it at once', async () => {
    const answers = await Promise.all([1, 2, 3].map(() => maren.post('company/sites', { code: 'TWIN', name: 'Twin Barn' })));
    const made = answers.filter((a) => a.status === 201).length;
    expect(made).toBe(1);
    expect(answers.every((a) => a.status < 500)).toBe(true);
    const [row] = await house.source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM place WHERE code LIKE 'TWIN-%'`);
    expect(Number(row?.n)).toBe(2);
  });
});
