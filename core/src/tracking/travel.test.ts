import fc from 'fast-check';
import { isTrouble, type Travel, type TravelEvent, TRAVELS, travelOf, troubleOf } from './index.js';

const said = (...what: Travel[]): TravelEvent[] => what.map((w, i) => ({ what: w, at: new Date(Date.UTC(2026, 4, 14, 8 + i)) }));

describe('where a parcel is', () => {
  it('is what was said of the latest instant, in whatever order it is heard', () => {
    expect(travelOf([])).toBeNull();
    const events = said('collected', 'on-the-way', 'out-for-delivery', 'delivered');
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: events.length }), (heard) => expect(travelOf(heard)?.what).toBe('delivered')),
    );
  });

  it('is the one further on of two that are said of the same instant', () => {
    const at = new Date('2026-05-14T08:00:00Z');
    expect(travelOf([{ what: 'delivered', at }, { what: 'collected', at }])?.what).toBe('delivered'); // prettier-ignore
  });
});

describe('what the order desk must see to', () => {
  it('is over by a delivery; a delay also by going on', () => {
    expect(troubleOf(said('collected', 'delayed'))).toBe('delayed');
    expect(troubleOf(said('collected', 'delayed', 'on-the-way'))).toBeNull();
    expect(troubleOf(said('collected', 'lost', 'on-the-way'))).toBe('lost');
    expect(troubleOf(said('collected', 'lost', 'delivered'))).toBeNull();
    expect(troubleOf(said('delivered', 'damaged'))).toBe('damaged');
    expect(troubleOf(said('damaged', 'delayed'))).toBe('damaged');
  });

  it('is never anything that was not said, and does not hang on the order in which it is heard', () => {
    const events = fc.array(fc.record({ what: fc.constantFrom(...TRAVELS), at: fc.date({ noInvalidDate: true }) }), { maxLength: 8 });
    fc.assert(
      fc.property(events, (all) => {
        const trouble = troubleOf(all);
        expect(troubleOf([...all].reverse())).toBe(trouble);
        if (trouble !== null) expect(all.some((e) => e.what === trouble && isTrouble(e.what))).toBe(true);
      }),
    );
  });
});
