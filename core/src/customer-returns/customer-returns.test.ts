import fc from 'fast-check';
import { fateFor, maySell, settlementFor, worthBack, CAME_AS_NAMES, REASON_NAMES, WISHES, type ToSettle } from './index.js';

describe('what becomes of goods that come back', () => {
  const came = (cameAs: (typeof CAME_AS_NAMES)[number], reason: (typeof REASON_NAMES)[number] = 'unwanted', tracking = 'none') =>
    fateFor({ tracking }, { cameAs, reason, wish: null }).fate;

  it('sells again what nobody has opened, unless it is kept by a date', () => {
    expect(came('as-new')).toBe('shelf');
    expect(came('as-new', 'unwanted', 'lot-expiry')).toBe('quarantine');
  });

  it('sends what does not work to its supplier, or to be repaired where the customer wishes', () => {
    expect(came('faulty', 'faulty')).toBe('supplier');
    expect(fateFor({ tracking: 'serial' }, { cameAs: 'faulty', reason: 'faulty', wish: 'repair' }).fate).toBe('repair');
  });

  it('keeps what was damaged on the way for the carrier, and scraps what was damaged otherwise', () => {
    expect(came('damaged', 'damaged-on-the-way')).toBe('quarantine');
    expect(came('damaged', 'unwanted')).toBe('scrap');
  });

  it('never puts on the shelf what may not be sold', () => {
    for (const cameAs of CAME_AS_NAMES)
      for (const reason of REASON_NAMES)
        for (const wish of [null, ...WISHES])
          for (const tracking of ['none', 'lot', 'lot-expiry', 'serial'])
            if (!maySell(cameAs)) expect(fateFor({ tracking }, { cameAs, reason, wish }).fate).not.toBe('shelf');
  });
});

describe('what the customer gets', () => {
  const back = (more: Partial<ToSettle> = {}): ToSettle => ({
    wish: null,
    reasons: ['unwanted'],
    fates: ['shelf'],
    days: 4,
    withinDays: 30,
    canSend: true,
    ...more,
  });
  const given = (more: Partial<ToSettle>) => settlementFor(back(more))?.settlement;

  it('is not said before anything is back', () => {
    expect(settlementFor(back({ fates: [] }))).toBeNull();
  });

  it('is their money within the days, and nothing after them where nobody but they changed their mind', () => {
    expect(given({})).toBe('refund');
    expect(given({ days: 30 })).toBe('refund');
    expect(settlementFor(back({ days: 31 }))).toEqual({
      settlement: 'nothing',
      why: 'It left 31 days before; goods come back for 30 days',
    });
  });

  it('is their money after any time where the fault was not theirs', () => {
    expect(given({ days: 400, reasons: ['unwanted', 'faulty'] })).toBe('refund');
  });

  it('is the same goods where they wish so and these are free', () => {
    expect(given({ wish: 'exchange' })).toBe('exchange');
    expect(given({ wish: 'exchange', canSend: false })).toBe('refund');
  });

  it('is a repair once anything is there to be repaired', () => {
    expect(given({ wish: 'repair', fates: ['repair', 'shelf'] })).toBe('repair');
    // A wish alone repairs nothing.
    expect(given({ wish: 'repair' })).toBe('refund');
  });

  it('is nothing where nobody knows the order', () => {
    expect(given({ days: null, reasons: ['faulty'] })).toBe('nothing');
  });
});

describe('what comes back is worth what it left at', () => {
  it('in whatever steps, though more leaves between them: the parts of all units sum to what all of them cost', () => {
    const step = fc.record({
      units: fc.integer({ min: 1, max: 40 }),
      value: fc.bigInt(0n, 10n ** 14n),
      back: fc.integer({ min: 0, max: 40 }),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
        const left = { units: 0, value: 0n };
        const before = { units: 0, value: 0n };
        const comeBack = (units: number) => {
          const part = worthBack(left, before, units);
          expect(part).toBeGreaterThanOrEqual(0n);
          before.units += units;
          before.value += part;
        };
        for (const { units, value, back } of steps) {
          left.units += units;
          left.value += value;
          const some = Math.min(back, left.units - before.units);
          if (some > 0) comeBack(some);
        }
        if (left.units > before.units) comeBack(left.units - before.units);
        expect(before).toEqual(left);
      }),
    );
  });

  it('is nought where nothing is known to have left', () => {
    expect(worthBack({ units: 0, value: 5n }, { units: 0, value: 0n }, 1)).toBe(0n);
  });
});
