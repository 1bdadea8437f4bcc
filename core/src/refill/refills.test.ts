import fc from 'fast-check';
import type { BinStock } from '../allocation/index.js';
import { refillsOf, type RefillItem } from './index.js';

const bin = (placeId: number, units: number, more: Partial<BinStock> = {}): BinStock => ({
  placeId,
  lotId: 0,
  walkOrder: placeId,
  units,
  ...more,
});
const item = (given: Partial<RefillItem>): RefillItem => ({
  rotation: 'fifo',
  packs: [1],
  free: 0,
  coming: 0,
  reserve: [bin(1, 100)],
  wants: [],
  below: null,
  upTo: null,
  room: Infinity,
  ...given,
});
const want = (order: string, units: number, at = '10:00') => ({ order, units, leavesAt: `2026-05-04T${at}:00Z` });

describe('what is brought to where it is picked from', () => {
  it('is what orders want and no bin has, with the soonest of them', () => {
    const wants = [want('O-1', 5), want('O-2', 7, '12:00'), want('O-3', 4, '15:00')];
    expect(refillsOf(item({ free: 8, wants }))).toEqual([
      { placeId: 1, lotId: 0, units: 8, orders: ['O-2', 'O-3'], leavesAt: '2026-05-04T12:00:00Z' },
    ]);
  });

  it('is nothing where bins have enough, or the dock has it', () => {
    expect(refillsOf(item({ free: 5, wants: [want('O-1', 5)] }))).toEqual([]);
    expect(refillsOf(item({ free: 2, coming: 3, wants: [want('O-1', 5)] }))).toEqual([]);
  });

  it('fills a face that runs low up to its level, once what waits is gone', () => {
    expect(refillsOf(item({ free: 9, below: 10, upTo: 40 }))).toMatchObject([{ units: 31, orders: [], leavesAt: null }]);
    expect(refillsOf(item({ free: 10, below: 10, upTo: 40 }))).toEqual([]);
    // Twelve are free and three are wanted: nine would be left.
    expect(refillsOf(item({ free: 12, below: 10, upTo: 40, wants: [want('O-1', 3)] }))).toMatchObject([{ units: 31, orders: [] }]);
    expect(refillsOf(item({ free: 0, below: 10, upTo: 40, wants: [want('O-1', 3)] }))).toMatchObject([{ units: 43, orders: ['O-1'] }]);
    expect(refillsOf(item({ free: 9, below: 10 }))).toMatchObject([{ units: 1 }]);
  });

  it('is no more than the face has room for, beyond what orders want', () => {
    expect(refillsOf(item({ free: 9, below: 10, upTo: 40, room: 12 }))).toMatchObject([{ units: 12 }]);
    expect(refillsOf(item({ free: 9, below: 10, upTo: 40, room: 0 }))).toEqual([]);
    expect(refillsOf(item({ wants: [want('O-1', 9)], room: 4 }))).toMatchObject([{ units: 9 }]);
  });

  it('opens no pack that the reserve has whole, where there is room for it', () => {
    expect(refillsOf(item({ packs: [1, 12, 96], wants: [want('O-1', 5)] }))).toMatchObject([{ units: 12 }]);
    expect(refillsOf(item({ packs: [96, 12, 1], wants: [want('O-1', 30)] }))).toMatchObject([{ units: 36 }]);
    expect(refillsOf(item({ packs: [1, 12], wants: [want('O-1', 5)], reserve: [bin(1, 7)] }))).toMatchObject([{ units: 5 }]);
    expect(refillsOf(item({ packs: [1, 12], wants: [want('O-1', 5)], room: 8 }))).toMatchObject([{ units: 8 }]);
  });

  it('takes what is due first, each order with the goods that serve it', () => {
    const reserve = [bin(1, 10, { lotId: 7, expires: '2027-03-01' }), bin(2, 4, { lotId: 5, expires: '2026-09-01' })];
    expect(refillsOf(item({ rotation: 'fefo', reserve, wants: [want('O-1', 3), want('O-2', 4, '12:00')] }))).toEqual([
      { placeId: 2, lotId: 5, units: 4, orders: ['O-1', 'O-2'], leavesAt: '2026-05-04T10:00:00Z' },
      { placeId: 1, lotId: 7, units: 3, orders: ['O-2'], leavesAt: '2026-05-04T12:00:00Z' },
    ]);
  });

  it('never brings what is not there, nor leaves an order lacking while the reserve has goods', () => {
    const few = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(
        fc.record({
          reserve: fc.array(fc.record({ units: few, expires: fc.constantFrom('2026-09-01', '2027-01-01', null) }), { maxLength: 5 }),
          wants: fc.array(fc.integer({ min: 1, max: 20 }), { maxLength: 5 }),
          free: few,
          coming: few,
          below: fc.option(few),
          upTo: fc.option(few),
          room: fc.oneof(few, fc.constant(Infinity)),
          packs: fc.subarray([1, 6, 24]),
        }),
        ({ reserve, wants, ...rest }) => {
          const bins = reserve.map((b, i) => bin(i + 1, b.units, { expires: b.expires }));
          const refills = refillsOf(item({ ...rest, rotation: 'fefo', reserve: bins, wants: wants.map((n, i) => want(`O-${i}`, n)) }));
          for (const r of refills) {
            expect(r.units).toBeGreaterThan(0);
            expect(r.units).toBeLessThanOrEqual(bins.find((b) => b.placeId === r.placeId)?.units ?? 0);
          }
          expect(new Set(refills.map((r) => r.placeId)).size).toBe(refills.length);
          const brought = refills.reduce((n, r) => n + r.units, 0);
          const lacked = Math.max(0, wants.reduce((n, w) => n + w, 0) - rest.free - rest.coming);
          const has = bins.reduce((n, b) => n + b.units, 0);
          expect(brought).toBeGreaterThanOrEqual(Math.min(lacked, has));
          expect(brought).toBeLessThanOrEqual(Math.max(lacked, Math.min(lacked, has), rest.room));
        },
      ),
    );
  });
});
