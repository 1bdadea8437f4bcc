import fc from 'fast-check';
import {
  boundsWords,
  ordinal,
  readAnswer,
  ruleFor,
  standOf,
  whereTheyStand,
  whyInspect,
  type Check,
  type InspectionRule,
} from './index.js';

const rule = (more: Partial<InspectionRule>): InspectionRule => ({
  id: 1,
  itemId: null,
  supplierId: null,
  kind: 'always',
  n: 1,
  checklistId: null,
  ...more,
});
const passed = { inspected: true, passed: true };
const failed = { inspected: true, passed: false };
const waits = { inspected: true, passed: null };
const unseen = { inspected: false, passed: null };

describe('which deliveries are looked at', () => {
  it('by the most exact rule: an item from a supplier, the item, the supplier', () => {
    const rules = [
      rule({ id: 1, supplierId: 5 }),
      rule({ id: 2, itemId: 7 }),
      rule({ id: 3, itemId: 7, supplierId: 5 }),
      rule({ id: 4, itemId: 8, supplierId: 6 }),
    ];
    expect(ruleFor(rules, { itemId: 7, supplierId: 5 })?.id).toBe(3);
    expect(ruleFor(rules, { itemId: 7, supplierId: 6 })?.id).toBe(2);
    expect(ruleFor(rules, { itemId: 9, supplierId: 5 })?.id).toBe(1);
    expect(ruleFor(rules, { itemId: 8, supplierId: null })).toBeUndefined();
  });

  it('each of them, whatever came of the last', () => {
    expect(whyInspect({ kind: 'always', n: 1 }, [passed, passed])).toBe('every delivery is looked at');
  });

  it('the first and then every third', () => {
    const third = { kind: 'every' as const, n: 3 };
    expect(whyInspect(third, [])).toBe('the first delivery');
    expect(whyInspect(third, [passed])).toBeNull();
    expect(whyInspect(third, [unseen, passed])).toBeNull();
    expect(whyInspect(third, [unseen, unseen, passed])).toBe('every 3rd delivery is looked at');
    expect(whyInspect(third, [unseen, unseen])).toBe('none was looked at yet');
  });

  it('the next one after one that failed, and none twice while it waits', () => {
    const third = { kind: 'every' as const, n: 3 };
    expect(whyInspect(third, [failed])).toBe('the last one looked at did not pass');
    expect(whyInspect(third, [unseen, failed])).toBe('the last one looked at did not pass');
    expect(whyInspect(third, [waits])).toBeNull();
  });

  it('until so many in a row have passed', () => {
    const two = { kind: 'until-proven' as const, n: 2 };
    expect(whyInspect(two, [])).toBe('0 of 2 in a row have passed');
    expect(whyInspect(two, [waits, passed])).toBe('1 of 2 in a row have passed');
    expect(whyInspect(two, [passed, passed, failed])).toBeNull();
    expect(whyInspect(two, [unseen, unseen, passed, passed])).toBeNull();
    expect(whyInspect(two, [passed, failed, passed])).toBe('1 of 2 in a row have passed');
    expect(whyInspect(two, [failed, passed, passed])).toBe('the last one looked at did not pass');
  });

  it('with no more than n − 1 unseen between two that are looked at, whatever the history', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 30 }), (n, deliveries) => {
        const past: (typeof passed | typeof unseen)[] = [];
        for (let i = 0; i < deliveries; i++) past.unshift(whyInspect({ kind: 'every', n }, past) ? passed : unseen);
        const seen = past.toReversed().flatMap((d, i) => (d.inspected ? [i] : []));
        expect(seen).toEqual(Array.from({ length: Math.ceil(deliveries / n) }, (_, i) => i * n));
      }),
    );
  });
});

describe('a checklist', () => {
  const yes: Check = { no: 1, says: 'Seals whole', kind: 'yes', unit: '', low: null, high: null };
  const wall: Check = { no: 2, says: 'Wall', kind: 'measure', unit: 'mm', low: '1.2', high: '1.40' };
  const words: Check = { no: 3, says: 'Colour', kind: 'words', unit: '', low: null, high: null };

  it.each([
    [yes, 'yes', { ok: true }],
    [yes, ' no ', { ok: false }],
    [yes, 'perhaps', { fault: 'Say yes or no' }],
    [wall, '1.2', { ok: true }],
    [wall, '1.4', { ok: true }],
    [wall, '1.400001', { ok: false }],
    [wall, '1.19', { ok: false }],
    [wall, '-1.3', { ok: false }],
    [wall, '1,3', { fault: 'Type a number in mm' }],
    [wall, '1e3', { fault: 'Type a number in mm' }],
    [words, 'amber', { ok: true }],
    [words, '  ', { fault: 'Say it in words' }],
  ] as const)('%#: reads what was answered exactly', (check, value, reading) => {
    expect(readAnswer(check, value)).toEqual(reading);
  });

  it('tells what is open and what was not fulfilled', () => {
    const stand = standOf([yes, wall, words], { 1: 'no', 2: 'about one' });
    expect(stand.open.map((c) => c.no)).toEqual([2, 3]);
    expect(stand.failed.map((c) => c.no)).toEqual([1]);
    expect(standOf([], {})).toEqual({ open: [], failed: [] });
  });

  it('says its bounds as people do', () => {
    expect(boundsWords(wall)).toBe('from 1.2 to 1.40 mm');
    expect(boundsWords({ ...wall, high: null })).toBe('1.2 mm or more');
    expect(boundsWords({ ...wall, low: null })).toBe('1.40 mm or less');
    expect([1, 2, 3, 4, 11, 12, 21, 112].map(ordinal)).toEqual(['1st', '2nd', '3rd', '4th', '11th', '12th', '21st', '112th']);
  });
});

describe('where goods to be looked at stand', () => {
  it('the oldest delivery in the first place, lot by lot', () => {
    const goods = [
      { inspection: 'Q-1', lotId: 1, units: 5 },
      { inspection: 'Q-2', lotId: 1, units: 4 },
      { inspection: 'Q-2', lotId: 2, units: 3 },
    ];
    const stands = [
      { placeId: 10, lotId: 1, units: 7 },
      { placeId: 11, lotId: 1, units: 9 },
      { placeId: 11, lotId: 2, units: 2 },
    ];
    expect(whereTheyStand(goods, stands)).toEqual([
      { inspection: 'Q-1', lotId: 1, units: 5, placeId: 10 },
      { inspection: 'Q-2', lotId: 1, units: 2, placeId: 10 },
      { inspection: 'Q-2', lotId: 1, units: 2, placeId: 11 },
      { inspection: 'Q-2', lotId: 2, units: 2, placeId: 11 },
    ]);
  });
});
