import fc from 'fast-check';
import { DepartureBoard, instantOf, promisedFor, type SiteCalendar } from './index.js';

const LONDON = 'Europe/London';
const site = (more: Partial<SiteCalendar> = {}): SiteCalendar => ({
  timeZone: LONDON,
  workingDays: 'YYYYYNN',
  departures: [
    { leavesAt: '16:30', closesMinutes: 90 },
    { leavesAt: '11:00', closesMinutes: 30 },
  ],
  ...more,
});
const promised = (now: string, calendar = site()) => promisedFor(new Date(now), calendar).toISOString();

describe('what an order is promised for', () => {
  it('is the first van that it is still in time for, whatever order the vans are written in', () => {
    expect(promised('2026-01-14T08:00:00Z')).toBe('2026-01-14T11:00:00.000Z');
    expect(promised('2026-01-14T10:30:00Z')).toBe('2026-01-14T11:00:00.000Z');
    expect(promised('2026-01-14T10:30:01Z')).toBe('2026-01-14T16:30:00.000Z');
    expect(promised('2026-01-14T15:00:01Z')).toBe('2026-01-15T11:00:00.000Z');
  });

  it('passes over days off, and over the night', () => {
    expect(promised('2026-01-16T15:30:00Z')).toBe('2026-01-19T11:00:00.000Z');
    expect(promised('2026-01-17T09:00:00Z')).toBe('2026-01-19T11:00:00.000Z');
    expect(promised('2026-01-17T09:00:00Z', site({ workingDays: 'NNNNNNY' }))).toBe('2026-01-18T11:00:00.000Z');
  });

  it('goes by the clock on the wall of the site, in summer and in winter', () => {
    expect(promised('2026-07-15T08:00:00Z')).toBe('2026-07-15T10:00:00.000Z');
    const auckland = site({ timeZone: 'Pacific/Auckland' });
    // Eight in the evening of Wednesday in London is Thursday morning there already.
    expect(promised('2026-01-14T20:00:00Z', auckland)).toBe('2026-01-14T22:00:00.000Z');
  });

  it('keeps the time of the van across a change of clocks', () => {
    const everyDay = site({ workingDays: 'YYYYYYY' });
    expect(promised('2026-03-28T23:00:00Z', everyDay)).toBe('2026-03-29T10:00:00.000Z');
    expect(promised('2026-10-24T23:30:00Z', everyDay)).toBe('2026-10-25T11:00:00.000Z');
  });

  it('is the end of the working day where no van is named', () => {
    const none = site({ departures: [] });
    expect(promised('2026-01-14T09:00:00Z', none)).toBe('2026-01-14T17:00:00.000Z');
    expect(promised('2026-01-14T15:00:01Z', none)).toBe('2026-01-15T17:00:00.000Z');
  });

  it('cannot be said of a site that never works', () => {
    expect(() => promised('2026-01-14T09:00:00Z', site({ workingDays: 'NNNNNNN' }))).toThrow(RangeError);
  });

  it('lies ahead, on a working day, at a time at which a van leaves; a later order is never promised earlier', () => {
    const week = fc.stringMatching(/^[YN]{7}$/).filter((d) => d.includes('Y'));
    const time = fc.tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 })).map(([h, m]) => {
      const two = (n: number) => String(n).padStart(2, '0');
      return `${two(h)}:${two(m)}`;
    });
    const calendar = fc.record({
      timeZone: fc.constantFrom('UTC', 'Asia/Kolkata', 'America/Bogota'),
      workingDays: week,
      departures: fc.array(fc.record({ leavesAt: time, closesMinutes: fc.integer({ min: 0, max: 600 }) }), { minLength: 1, maxLength: 4 }),
    });
    const instant = fc.date({ min: new Date('2026-01-01'), max: new Date('2027-12-31'), noInvalidDate: true });
    fc.assert(
      fc.property(calendar, instant, fc.integer({ min: 0, max: 86_400_000 * 3 }), (c, now, later) => {
        const leaves = promisedFor(now, c);
        expect(leaves.getTime()).toBeGreaterThanOrEqual(now.getTime());
        const there = new Intl.DateTimeFormat('en-GB', { timeZone: c.timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
        expect(c.departures.map((d) => d.leavesAt)).toContain(there.format(leaves));
        expect(promisedFor(new Date(now.getTime() + later), c).getTime()).toBeGreaterThanOrEqual(leaves.getTime());
      }),
      { numRuns: 300 },
    );
  });
});

describe('what still leaves a site', () => {
  const board = (now: string, calendar = site()) => new DepartureBoard(new Date(now), calendar);
  const toCatch = (now: string, promisedAt: string, calendar = site()) => board(now, calendar).toCatch(new Date(promisedAt)).toISOString();

  it('is caught by the last van before the promise', () => {
    expect(toCatch('2026-01-14T08:00:00Z', '2026-01-14T16:30:00Z')).toBe('2026-01-14T16:30:00.000Z');
    expect(toCatch('2026-01-14T08:00:00Z', '2026-01-14T16:00:00Z')).toBe('2026-01-14T11:00:00.000Z');
    // What is promised for the early morning leaves the evening before; over a weekend, on Friday.
    expect(toCatch('2026-01-15T09:00:00Z', '2026-01-19T09:00:00Z')).toBe('2026-01-16T16:30:00.000Z');
  });

  it('is caught by the next van where the promise cannot be kept any more', () => {
    expect(toCatch('2026-01-14T12:00:00Z', '2026-01-14T11:00:00Z')).toBe('2026-01-14T16:30:00.000Z');
    expect(toCatch('2026-01-16T18:00:00Z', '2026-01-14T11:00:00Z')).toBe('2026-01-19T11:00:00.000Z');
  });

  it('is asked for in any order, and answered alike', () => {
    const one = board('2026-01-14T08:00:00Z');
    const asked = ['2026-02-20T12:00:00Z', '2026-01-14T11:00:00Z', '2026-01-30T10:00:00Z', '2026-01-14T16:30:00Z'];
    expect(asked.map((at) => one.toCatch(new Date(at)).toISOString())).toEqual(asked.map((at) => toCatch('2026-01-14T08:00:00Z', at)));
  });

  it('is that of today as long as anything leaves today, and then that of the next working day', () => {
    const at = (now: string) => {
      const open = board(now).openDay();
      return [open?.day, open?.ends.toISOString(), ...(open?.departures.map((d) => d.rule?.leavesAt) ?? [])];
    };
    expect(at('2026-01-14T08:00:00Z')).toEqual(['2026-01-14', '2026-01-15T00:00:00.000Z', '11:00', '16:30']);
    expect(at('2026-01-14T12:00:00Z')).toEqual(['2026-01-14', '2026-01-15T00:00:00.000Z', '16:30']);
    expect(at('2026-01-14T23:00:00Z')).toEqual(['2026-01-15', '2026-01-16T00:00:00.000Z', '11:00', '16:30']);
    expect(at('2026-01-16T17:00:00Z')).toEqual(['2026-01-19', '2026-01-20T00:00:00.000Z', '11:00', '16:30']);
  });

  it('is asked for by whose van it is', () => {
    const vans = [
      { leavesAt: '11:00', closesMinutes: 30, carrier: 'A' },
      { leavesAt: '16:30', closesMinutes: 30, carrier: 'B' },
    ];
    const here = new DepartureBoard(new Date('2026-01-14T12:00:00Z'), { ...site(), departures: vans });
    expect(here.next((van) => van?.carrier === 'A')?.at.toISOString()).toBe('2026-01-15T11:00:00.000Z');
    expect(here.next((van) => van?.carrier === 'B')?.at.toISOString()).toBe('2026-01-14T16:30:00.000Z');
    expect(here.next((van) => van?.carrier === 'C')).toBeUndefined();
  });

  it('is never earlier than now, and never later than the promise where a van leaves in time', () => {
    const instant = fc.date({ min: new Date('2026-01-01'), max: new Date('2026-03-31'), noInvalidDate: true });
    fc.assert(
      fc.property(instant, fc.integer({ min: -86_400_000, max: 20 * 86_400_000 }), (now, ahead) => {
        const promise = new Date(now.getTime() + ahead);
        const here = new DepartureBoard(now, site());
        const van = here.toCatch(promise);
        expect(van >= now).toBe(true);
        const next = here.next()?.at ?? now;
        if (next <= promise) expect(van <= promise).toBe(true);
        else expect(van).toEqual(next);
      }),
      { numRuns: 200 },
    );
  });
});

describe('the instant of a clock on a wall', () => {
  it('is itself in UTC, and an hour earlier in a summer that is an hour ahead', () => {
    expect(instantOf(Date.UTC(2026, 6, 1, 12), 'UTC').toISOString()).toBe('2026-07-01T12:00:00.000Z');
    expect(instantOf(Date.UTC(2026, 6, 1, 12), LONDON).toISOString()).toBe('2026-07-01T11:00:00.000Z');
  });

  it('is some instant also in the hour that spring leaves out', () => {
    const at = instantOf(Date.UTC(2026, 2, 29, 1, 30), LONDON).getTime();
    expect(Math.abs(at - Date.UTC(2026, 2, 29, 1, 0))).toBeLessThanOrEqual(3_600_000);
  });
});
