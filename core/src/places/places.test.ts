import { isFor, isOutside, kindsFor, OUTSIDE_KINDS, PLACE_KINDS } from './index.js';

describe('kinds of places', () => {
  it('say what they are for', () => {
    expect(kindsFor('shelf')).toEqual(['pick-face', 'reserve']);
    expect(kindsFor('wait')).toEqual(['dock', 'inspection', 'quarantine', 'cart']);
    expect(kindsFor('store')).toEqual(['pick-face', 'reserve', 'cart']);
    expect(kindsFor('container')).toEqual(['tote', 'cart', 'pallet', 'parcel']);
    expect(kindsFor('set-down')).toEqual(['packing-table']);
  });

  it('know nothing of kinds that are none', () => {
    expect(isFor('toString', 'shelf')).toBe(false);
    expect(isFor('', 'wait')).toBe(false);
  });

  it('are in the house or outside of it, never both', () => {
    expect(PLACE_KINDS.filter((kind) => isOutside(kind))).toEqual([]);
    expect(OUTSIDE_KINDS.every((kind) => isOutside(kind) && !isFor(kind, 'wait'))).toBe(true);
  });
});
