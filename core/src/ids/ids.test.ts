import type { ItemId, LotId, PlaceId } from './index.js';

describe('ids', () => {
  it('are told apart by the compiler, and are plain numbers otherwise', () => {
    const item: ItemId = 7;
    const place: PlaceId = 9;
    const takesPlace = (id: PlaceId): number => id;
    // @ts-expect-error an item is no place
    takesPlace(item);
    // @ts-expect-error a place is no lot
    const lot: LotId = place;
    expect([takesPlace(place), lot, item + 1]).toEqual([9, 9, 8]);
  });
});
