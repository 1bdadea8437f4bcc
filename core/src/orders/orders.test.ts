import fc from 'fast-check';
import { ORDER_STATES, orderState, ordersIn, type LineProgress } from './index.js';

const line = (more: Partial<LineProgress> = {}): LineProgress => ({
  units: 5,
  waits: true,
  toPick: 0,
  walking: 0,
  setDown: 0,
  inOpenParcel: 0,
  inClosedParcel: 0,
  shipped: 0,
  ...more,
});
const state = (lines: LineProgress[], more: object = {}) =>
  orderState({ cancelled: false, quoted: false, held: false, begun: false, lines, ...more });

describe('the state of an order', () => {
  it('follows its goods from bin to customer', () => {
    expect(state([line()])).toBe('open');
    expect(state([line({ toPick: 5 })])).toBe('released');
    expect(state([line({ toPick: 5 })], { begun: true })).toBe('picking');
    expect(state([line({ toPick: 2, walking: 3 })])).toBe('picking');
    expect(state([line({ walking: 5 })])).toBe('picking');
    expect(state([line({ setDown: 5 })])).toBe('picked');
    expect(state([line({ inOpenParcel: 5 })])).toBe('picked');
    expect(state([line({ inClosedParcel: 5 })])).toBe('packed');
    expect(state([line({ shipped: 5 })])).toBe('shipped');
  });

  it('is as far back as the line that is furthest back', () => {
    expect(state([line({ inClosedParcel: 5 }), line({ setDown: 1 })])).toBe('picked');
    expect(state([line({ inClosedParcel: 5 }), line({ toPick: 1 })])).toBe('picking');
    expect(state([line({ shipped: 5 }), line({ inClosedParcel: 5 })])).toBe('packed');
  });

  it('opens again where a parcel has left and the rest waits for stock', () => {
    expect(state([line({ shipped: 3 })])).toBe('open');
    expect(state([line({ shipped: 5 }), line()])).toBe('open');
  });

  it('is over without the trifles that never hold it up', () => {
    expect(state([line({ shipped: 5 }), line({ waits: false })])).toBe('shipped');
    expect(state([line({ waits: false })])).toBe('open');
  });

  it('is held or cancelled where somebody says so, but not while its goods are on their way', () => {
    expect(state([line()], { held: true })).toBe('held');
    expect(state([line({ walking: 5 })], { held: true })).toBe('picking');
    expect(state([line()], { cancelled: true, held: true })).toBe('cancelled');
  });

  it('is a quote until its customer says yes, and over where they say no', () => {
    expect(state([line()], { quoted: true })).toBe('quote');
    expect(state([line()], { quoted: true, cancelled: true })).toBe('cancelled');
  });

  it('is never over while goods of it are in the house for it', () => {
    const units = fc.nat(3);
    const any = fc.record({
      units: fc.constant(5),
      waits: fc.boolean(),
      toPick: units,
      walking: units,
      setDown: units,
      inOpenParcel: units,
      inClosedParcel: units,
      shipped: units,
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 4 }), fc.boolean(), fc.boolean(), (lines, held, begun) => {
        const now = orderState({ cancelled: false, quoted: false, held, begun, lines });
        const here = lines.some((l) => l.toPick + l.walking + l.setDown + l.inOpenParcel + l.inClosedParcel > 0);
        expect(ordersIn('at work').includes(now)).toBe(here);
      }),
    );
  });

  it('is in the groups that ask for it', () => {
    expect(ordersIn('promisable')).toEqual(['open', 'held']);
    expect(ordersIn('live')).toEqual(ORDER_STATES.filter((s) => s !== 'quote' && s !== 'shipped' && s !== 'cancelled'));
  });
});
