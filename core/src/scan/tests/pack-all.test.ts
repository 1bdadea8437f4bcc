import { leftToPack, pack, type PackTask, parcelsNow, startPack, trustedRest } from '../index.js';
import { type AnyInput, codes, scan, walk } from './book.js';

const line = (number: number, itemId: number, picked: number, trusted: boolean) => ({
  line: number,
  itemId,
  picked,
  packed: 0,
  unitG: 300,
  unitMl: 700,
  trusted,
});
const order = (...trusted: boolean[]): PackTask => ({
  order: 'S-1',
  customer: 'Wick Hill Farm',
  note: null,
  noteSeen: true,
  parcels: [],
  lines: [line(1, 1, 50, trusted[0] ?? false), line(2, 2, 3, trusted[1] ?? false)],
});
const done = (task: PackTask, ...inputs: AnyInput[]) => walk(pack, task, startPack, ...inputs);
const all = { kind: 'all' as const };

describe('goods that were scanned at their bins', () => {
  it('go into the box at once, by key or card, and are counted as they lie there', () => {
    for (const input of [all, scan('VX-ALL')]) {
      const { commands, state, last } = done(order(true, true), input);
      expect(commands).toEqual([
        { kind: 'pack-all', id: 'id-1', order: 'S-1', parcel: 1, lines: [{ line: 1, units: 50 }, { line: 2, units: 3 }] }, // prettier-ignore
      ]);
      expect(last?.feedback?.title).toBe('Parcel 1: all 53 in');
      expect(leftToPack(order(true, true), state)).toBe(0);
      expect(parcelsNow(order(true, true), state)[0]?.contents).toEqual([{ line: 1, units: 50 }, { line: 2, units: 3 }]); // prettier-ignore
    }
  });

  it('are only what is left, and only the lines that were proved; the rest is scanned', () => {
    const { commands, last, state } = done(order(true, false), scan(codes.jar), all);
    expect(commands.at(-1)).toMatchObject({ kind: 'pack-all', lines: [{ line: 1, units: 49 }] });
    expect(last?.feedback?.detail).toBe('3 more to scan');
    expect(trustedRest(order(true, false), state)).toEqual([]);
  });

  it('are none where the house trusts no tote, or nothing is left', () => {
    expect(done(order(), all).last?.feedback).toMatchObject({ band: 'not-this', title: 'Scan each' });
    expect(done(order(true, true), all, all).commands).toHaveLength(1);
  });
});
