import { insertsLeft, leftToPack, pack, type PackTask, startPack } from '../index.js';
import { type AnyInput, book, codes, over, scan, walk } from './book.js';

/** Item 9 is a kit of two jars and a lid; its code is on the bag that they come in. */
const withKit = {
  ...book,
  codes: { ...book.codes, KIT: { itemId: 9, packId: 91 }, 'KIT-5': { itemId: 9, packId: 92 } },
  items: {
    ...book.items,
    9: {
      id: 9,
      sku: 'KIT',
      name: 'Starter kit',
      picture: 'box',
      tracking: 'none' as const,
      home: null,
      packs: [
        { id: 92, name: 'case', plural: 'cases', factor: 5 },
        { id: 91, name: 'kit', plural: 'kits', factor: 1 },
      ],
    },
  },
};
const line = (number: number, itemId: number, picked: number, more: object = {}) => ({
  line: number,
  itemId,
  picked,
  packed: 0,
  unitG: 300,
  unitMl: 700,
  ...more,
});
const order = (jars = 4, lids = 2, more: object = {}): PackTask => ({
  order: 'S-1',
  customer: 'Wick Hill Farm',
  note: null,
  noteSeen: true,
  parcels: [],
  lines: [line(2, 1, jars), line(3, 2, lids, more)],
  kits: [{ line: 1, itemId: 9, parts: [{ line: 2, each: 2 }, { line: 3, each: 1 }] }], // prettier-ignore
});
const done = (task: PackTask, ...inputs: AnyInput[]) => walk(over(pack, withKit), task, startPack, ...inputs);

describe('kits at the table', () => {
  it('go in whole by the code on the kit, or part by part, as they come to hand', () => {
    const { commands, state, last } = done(order(), scan('KIT'), scan(codes.jar), scan(codes.jar), scan('LID'));
    expect(commands[0]).toEqual({
      kind: 'pack-kit',
      id: 'id-1',
      order: 'S-1',
      parcel: 1,
      kit: 1,
      kits: 1,
      how: 'scanned',
      lines: [{ line: 2, units: 2 }, { line: 3, units: 1 }], // prettier-ignore
    });
    expect(commands.slice(1).map((c) => c.kind)).toEqual(['pack', 'pack', 'pack']);
    expect(leftToPack(order(), state)).toBe(0);
    expect(last?.feedback?.band).toBe('accepted');
    const again = done(order(), scan('KIT'), scan('KIT'), scan('KIT')).last?.feedback;
    expect(again).toMatchObject({ band: 'too-many', title: 'Starter kit' });
  });

  it('that lack a part are refused by the name of the part, before anything is posted', () => {
    const { commands, last } = done(order(4, 0), scan('KIT'));
    expect(commands.filter((c) => c.kind === 'pack-kit')).toEqual([]);
    expect(last?.feedback).toMatchObject({ band: 'not-this', title: 'Not whole', detail: 'It lacks Lid, gold. Scan its parts one by one' });
    expect(done(order(), scan('KIT-5')).last?.feedback?.title).toBe('Not whole');
  });

  it('of an order that has none are no part of it', () => {
    expect(done({ ...order(), kits: [] }, scan('KIT')).last?.feedback).toMatchObject({ band: 'not-this', detail: 'Not on S-1.' });
  });

  it('come out part by part', () => {
    const inputs = [scan('KIT'), scan('VX-APART'), scan('KIT')];
    expect(done(order(), ...inputs).last?.feedback).toMatchObject({ band: 'not-this', title: 'Starter kit' });
  });
});

describe('what only goes along', () => {
  const task = order(4, 2, { insert: true });

  it('is left out by a card or a key: only the inserts, only what is left of them, and nothing waits for them', () => {
    for (const input of [scan('VX-LEAVE-OUT'), { kind: 'leave-out' as const }]) {
      const { commands, state, last } = done(task, scan('LID'), input);
      expect(commands.at(-1)).toMatchObject({ kind: 'leave-out', order: 'S-1', lines: [{ line: 3, units: 1 }] });
      expect(last?.feedback?.detail).toContain('Lid, gold');
      expect(insertsLeft(task, state)).toEqual([]);
      expect(leftToPack(task, state)).toBe(4);
    }
  });

  it('is none where goods were ordered: these are parked or changed, not left out', () => {
    const { commands, last } = done(order(), scan('VX-LEAVE-OUT'));
    expect(commands).toEqual([]);
    expect(last?.feedback?.title).toBe('Nothing to leave out');
  });
});
