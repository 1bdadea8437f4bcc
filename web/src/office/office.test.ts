import type { Dto } from '../api/client';
import { groupsOf } from './inbound/groups';
import { lineSum } from './inbound/line-sum';
import { bandPath, halfThickness, paceWords } from './line-band';

describe('the Line', () => {
  it('is thin with nothing to do, and never thicker than its rails allow', () => {
    expect(halfThickness(0, 8)).toBeCloseTo(2.2);
    expect(halfThickness(4, 8)).toBeCloseTo(6.2);
    expect(halfThickness(1000, 8)).toBe(12);
    expect(halfThickness(5, 0)).toBeCloseTo(2.2);
    expect(halfThickness(null, null)).toBeCloseTo(2.2);
  });
  it('says in words what it measured, and that it has not', () => {
    expect(paceWords({ hours: 2.25, hoursADay: 0.5 })).toBe('2 h 15 of work waits; a usual day gives it 30 min');
    expect(paceWords({ hours: 0, hoursADay: 6 })).toBe('0 min of work waits; a usual day gives it 6 h 00');
    expect(paceWords({ hours: null, hoursADay: null })).toContain('not known yet');
  });
  it('draws one closed shape', () => {
    const path = bandPath([3, 5, 12, 4, 3, 2.2], 1280);
    expect(path.startsWith('M20 ')).toBe(true);
    expect(path.endsWith('Z')).toBe(true);
    expect(path).not.toContain('NaN');
    expect(path.match(/C/g)).toHaveLength(12);
  });
});

describe('inbound', () => {
  const row = (code: string, state: string, expectedOn: string | null, late = false): Dto['PurchaseOrderRowDto'] => ({
    code,
    supplier: 'S',
    site: 'Millrace',
    state,
    expectedOn,
    door: null,
    ring: 'S',
    phone: '',
    late,
    lines: 1,
    linesIn: 0,
    answer: '',
    firstReceivedAt: null,
    holds: 'Jar, and 1 more',
    currency: 'GBP',
    buyer: 'Piet',
  });
  it('groups by what forces action', () => {
    const groups = groupsOf(
      [
        row('P-1', 'placed', '2026-05-20'),
        row('P-2', 'placed', '2026-05-12', true),
        row('P-3', 'part-received', '2026-05-14'),
        row('P-4', 'draft', null),
        row('P-5', 'placed', '2026-05-14'),
        row('P-6', 'placed', null),
      ],
      '2026-05-14',
    );
    expect(groups.map(([name, list]) => [name, list.map((o) => o.code)])).toEqual([
      ['At the door', ['P-3']],
      ['Late', ['P-2']],
      ['Today', ['P-5']],
      ['Later', ['P-1', 'P-6']],
      ['Draft', ['P-4']],
    ]);
  });

  it('sums a line both ways, and only a whole one', () => {
    expect(lineSum({ factor: 48, packs: '4', price: '20.16' })).toEqual({ units: 192, each: '0.42', goods: 80_640_000n });
    for (const wrong of [{ packs: '' }, { packs: '1.5' }, { packs: '0' }, { price: 'x' }, { price: '' }])
      expect(lineSum({ factor: 48, packs: '4', price: '1', ...wrong })).toBeNull();
  });
});
