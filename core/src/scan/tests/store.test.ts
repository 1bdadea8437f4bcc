import { checkStore, startStore, store, type StoreTask } from '../index.js';
import { type AnyInput, book, clear, codes, count, places, scan, walk } from './book.js';

const standing: StoreTask = {
  siteId: 1,
  metres: 0,
  goods: [
    {
      itemId: 1,
      lotId: 0,
      lot: null,
      units: 96,
      fromPlaceId: 100,
      fromCode: 'DOCK-1',
      suggestion: { code: 'A-01-1', reason: 'its pick face', units: 96 },
      then: [],
    },
    { itemId: 3, lotId: 7, lot: 'LM1', units: 4, fromPlaceId: 100, fromCode: 'DOCK-1', suggestion: null, then: [] },
    { itemId: 3, lotId: 8, lot: 'LM2', units: 6, fromPlaceId: 100, fromCode: 'DOCK-1', suggestion: null, then: [] },
  ],
};
const put = (...inputs: AnyInput[]) => walk(store, standing, startStore, ...inputs);

describe('putting away', () => {
  it('takes two scans: the thing, the bin', () => {
    const { commands, steps } = put(scan(codes.tray), scan('A-01-1'));
    expect(steps[0]?.feedback).toMatchObject({ title: 'Jar 454 g', detail: '2 trays, to A-01-1: its pick face' });
    expect(commands).toEqual([
      { kind: 'store', id: 'id-2', itemId: 1, lotId: 0, units: 96, fromPlaceId: 100, toPlaceId: 101, how: 'scanned' },
    ]);
  });

  it('takes another bin than the proposed one, and fewer than all', () => {
    expect(put(scan(codes.jar), count(12, 1), scan('B-01-1')).commands).toMatchObject([{ units: 48, toPlaceId: 102 }]);
  });

  it('tells lots apart by the label', () => {
    expect(put(scan(']C1010950600013436910LM2'), scan('A-01-1')).commands).toMatchObject([{ lotId: 8, units: 6 }]);
    expect(put(scan(']C1010950600013436910LM3')).last?.feedback).toMatchObject({ band: 'not-this', title: 'Syrup' });
  });

  it('refuses what is no bin, another site, more than stands there', () => {
    expect(put(scan(codes.jar), scan('TABLE-1')).last?.feedback).toMatchObject({ band: 'not-this', title: 'TABLE-1' });
    expect(put(scan(codes.jar), scan('QUAY-DOCK')).last?.feedback).toMatchObject({ band: 'not-this', title: 'QUAY-DOCK' });
    expect(put(scan(codes.jar), count(12, 3), scan('A-01-1')).last?.feedback).toMatchObject({
      band: 'too-many',
      title: 'Only 2 trays here',
    });
  });

  it('wants the goods before the bin, and only goods that stand there', () => {
    expect(put(scan('A-01-1')).last?.feedback?.detail).toBe('Scan the goods first, then the bin');
    expect(put(scan(codes.lid)).last?.feedback).toMatchObject({
      band: 'not-this',
      detail: 'None waits to be put away. It has no home here yet',
    });
    expect(put(scan(codes.jar), scan('A-01-1'), scan(codes.jar)).last?.feedback?.band).toBe('not-this');
    expect(put(scan(codes.unknown)).last?.feedback?.band).toBe('unknown');
  });

  it('lets go', () => {
    expect(put(scan(codes.jar), count(12, 1), clear).state).toEqual(startStore);
    expect(put(scan('VX-UNDO')).last?.undo).toBe(true);
  });

  it('says how much the proposed bin has room for', () => {
    const tight: StoreTask = {
      ...standing,
      goods: [{ ...standing.goods[0]!, suggestion: { code: 'A-01-1', reason: 'its pick face', units: 48 } }],
    };
    const { last } = walk(store, tight, startStore, scan(codes.tray));
    expect(last?.feedback?.detail).toBe('2 trays, to A-01-1: its pick face, which has room for 1 tray');
  });

  it('is judged by the same rule on the server', () => {
    const jar = book.items['1']!;
    expect(checkStore(1, jar, places.binA, 96, 96)).toBeNull();
    expect(checkStore(1, jar, undefined, 1, 1)).toMatchObject({ band: 'unknown' });
    expect(checkStore(1, jar, places.binA, 1.5, 96)).toMatchObject({ band: 'too-many' });
  });
});

describe('a cart', () => {
  const onCart: StoreTask = {
    ...standing,
    goods: [...standing.goods, { ...standing.goods[2]!, lotId: 9, lot: 'LM3', units: 2, fromPlaceId: 107, fromCode: 'CART-1' }],
  };
  const push = (...inputs: AnyInput[]) => walk(store, onCart, startStore, ...inputs);

  it('is loaded by two scans, whatever zone the goods need', () => {
    expect(push(scan(codes.jar), scan('CART-1')).commands).toMatchObject([{ kind: 'store', units: 96, toPlaceId: 107 }]);
    expect(checkStore(1, { ...book.items['3']!, storage: 'cold' }, places.cart, 2, 2)).toBeNull();
  });

  it('keeps to its own goods once it is scanned', () => {
    const { last, steps, commands } = push(scan('CART-1'), scan(codes.syrup), scan('A-01-1'), scan(codes.syrup));
    expect(steps[0]?.feedback).toMatchObject({ band: 'accepted', detail: '1 to put away from here' });
    expect(commands[0]).toMatchObject({ kind: 'store', lotId: 9, units: 2, fromPlaceId: 107 });
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'Syrup' });
  });

  it('that is empty is loaded by one scan for each of the goods, until it is let go; the tape undoes each', () => {
    const { steps, commands, state } = walk(store, standing, startStore, scan('CART-1'), scan(codes.jar), scan(codes.syrup), clear, scan(codes.syrup)); // prettier-ignore
    expect(steps[0]?.feedback).toMatchObject({ band: 'accepted', detail: 'It is empty. What is scanned now goes onto it' });
    expect(commands.map((c) => (c.kind === 'store' ? [c.itemId, c.units, c.toPlaceId] : c.kind))).toEqual([[1, 96, 107], [3, expect.any(Number), 107]]); // prettier-ignore
    // Let go, goods are in hand again and want a bin.
    expect([state.onto, state.hand === null]).toEqual([null, false]);
    expect(walk(store, standing, startStore, scan('QUAY-DOCK')).last?.feedback?.band).toBe('not-this');
  });

  it('cannot be put onto itself', () => {
    const { last, commands } = push(scan('CART-1'), scan(codes.syrup), scan('CART-1'));
    expect(last?.feedback?.detail).toBe('Syrup stands here already. Scan where it goes');
    expect(commands).toMatchObject([{ kind: 'refused' }]);
  });
});
