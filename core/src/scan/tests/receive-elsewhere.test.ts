import { checkWhole, findWords, proposedLot, receive, receivedOn, startReceive, wholeOf, type ReceiveTask } from '../index.js';
import { type AnyInput, book, codes, confirm, count, over, places, scan, typed, walk } from './book.js';

const line = (lineId: number, itemId: number, packId: number, ordered: number, received = 0) => ({ lineId, order: 'P-1', line: lineId, itemId, packId, ordered, received }); // prettier-ignore
const PALLET = '395060001343520018';
const task: ReceiveTask = {
  document: 'P-1',
  supplier: 'Quillon Glassware',
  overPercent: 0,
  fillRemaining: false,
  nextBooks: true,
  dock: places.dock,
  apart: null,
  inspection: null,
  inspect: {},
  mayTake: true,
  pallets: [],
  serials: [],
  lines: [line(1, 1, 11, 200), line(2, 2, 21, 60), line(3, 3, 31, 5)],
  others: [
    { code: 'P-2', supplier: 'Oulden Foods', also: [] },
    { code: 'A-7', supplier: 'Brindlemoor', also: ['P-3', PALLET] },
  ],
};
const run = (t: ReceiveTask, ...inputs: AnyInput[]) => walk(over(receive, book), t, startReceive, ...inputs);

describe('the code of another delivery in the middle of one', () => {
  it('goes there after saying so, by its paper, an order that it holds, or its pallet, which is scanned there', () => {
    expect(run(task, scan('p-2')).last).toMatchObject({ opens: { document: 'P-2', scan: null }, feedback: { band: 'accepted', title: 'P-2', detail: 'Going on with it: Oulden Foods' } }); // prettier-ignore
    expect(run(task, scan('P-3')).last?.opens).toEqual({ document: 'A-7', scan: null });
    expect(run(task, scan(`(00)${PALLET}`)).last?.opens).toEqual({ document: 'A-7', scan: `(00)${PALLET}` });
  });

  it('books in what was counted first, and stays where that raises a question', () => {
    const { commands, last } = run(task, scan(codes.jar), count(11, 7), scan('P-2'));
    expect(commands).toMatchObject([{ kind: 'receive', itemId: 1, units: 7, document: 'P-1' }]);
    expect(last?.opens?.document).toBe('P-2');
    expect(last?.feedback?.detail).toMatch(/^7 jars booked in\. Going on/);
    const asked = run(task, scan(codes.jar), count(11, 201), scan('P-2'));
    expect(asked.last?.opens).toBeUndefined();
    expect(asked.state.question).toMatchObject({ kind: 'over' });
  });

  it('stays where a key books goods in, with what was counted still in hand', () => {
    const { state, last } = run({ ...task, nextBooks: false }, scan(codes.jar), scan('P-2'));
    expect(last).toMatchObject({ feedback: { band: 'not-this', title: 'P-2', detail: expect.stringContaining('1 jar') } });
    expect(last?.opens).toBeUndefined();
    expect(state.hand?.itemId).toBe(1);
    expect(run({ ...task, nextBooks: false }, typed('P-2')).last?.opens?.document).toBe('P-2');
  });

  it('is unknown where nothing of it is due', () => {
    expect(run(task, scan('P-9')).state.question).toEqual({ kind: 'unknown-code', code: 'P-9' });
    expect(run(task, scan('(00)395060001343520025')).last?.feedback?.band).toBe('unknown');
  });
});

describe('so many that nobody ordered', () => {
  const lids = { ...task, lines: [line(1, 1, 11, 200)] };
  const take = { kind: 'answer' as const, answer: 'take' as const };
  const apart = { kind: 'answer' as const, answer: 'apart' as const };

  it('are asked about once, and booked in when it is said', () => {
    const asked = [scan(codes.lid), take, count(21, 99_999), confirm] as const;
    const { commands, state, last } = run(lids, ...asked);
    expect(state.question).toEqual({ kind: 'so-many', units: 99_999, as: 'unordered' });
    expect(last?.feedback).toMatchObject({ band: 'too-many', title: '99,999 lids?' });
    expect(commands.every((c) => c.kind === 'refused')).toBe(true);
    expect(run(lids, ...asked, take).commands.at(-1)).toMatchObject({ kind: 'receive', as: 'unordered', units: 99_999 });
    expect(run(lids, ...asked, apart).state).toMatchObject({ question: null, counts: { 21: 99_999 } });
    expect(run(lids, ...asked, count(21, 9), confirm).commands.at(-1)).toMatchObject({ kind: 'receive', units: 9 });
  });

  it('are asked about beyond an order too, only where they are ten times as many', () => {
    const over = run(lids, scan(codes.jar), count(11, 99_999), confirm, take);
    expect(over.state.question).toEqual({ kind: 'so-many', units: 99_999, as: 'extra' });
    expect(run(lids, scan(codes.jar), count(11, 99_999), confirm, take, take).commands.at(-1)).toMatchObject({
      as: 'extra',
      units: 99_999,
    });
    expect(run(lids, scan(codes.jar), count(11, 1_400), confirm, take).commands.at(-1)).toMatchObject({ as: 'extra', units: 1_400 });
    expect(run(lids, scan(codes.lid), take, count(21, 999), confirm).commands.at(-1)).toMatchObject({ kind: 'receive', units: 999 });
  });
});

describe('what is left of a delivery as it stands on the paper', () => {
  const lines = Array.from({ length: 12 }, (_, i) => line(i + 1, i % 2 === 0 ? 1 : 2, 11, 10));
  const many: ReceiveTask = { ...task, lines: [...lines, line(13, 3, 31, 5)], whole: { may: true, sample: 3 } };
  const whole = { kind: 'whole' as const };

  it('waits for its sample, which is the same whoever asks and whatever has come', () => {
    const { sample, counted } = wholeOf(many, book.items, startReceive);
    expect(sample).toHaveLength(3);
    expect(counted.map((l) => l.lineId)).toEqual([13]);
    expect(run(many, whole).last?.feedback).toMatchObject({ band: 'not-this', title: 'Count the sample first' });
    const drawn = new Set(sample.map((l) => l.lineId));
    const come = (most: number) => ({
      ...many,
      lines: many.lines.map((l) => ({ ...l, received: drawn.has(l.lineId) ? Math.min(most, l.ordered) : 4 })),
    });
    expect(wholeOf(come(9), book.items, startReceive).sample.map((l) => l.lineId)).toEqual(sample.map((l) => l.lineId));
    expect(wholeOf(come(10), book.items, startReceive).sample).toEqual([]);
    const { commands, state } = run(come(10), whole);
    expect(commands).toEqual([
      expect.objectContaining({ kind: 'receive-whole', document: 'P-1', lines: lines.filter((l) => !drawn.has(l.lineId)).map((l) => ({ lineId: l.lineId, units: 6 })) }), // prettier-ignore
    ]);
    for (const l of lines) expect(receivedOn(come(10), state, l.lineId)).toBe(10);
    expect(run(come(10), whole, whole).last?.feedback?.title).toBe('Nothing is left');
  });

  it('draws other lines for another paper', () => {
    const drawn = (document: string) =>
      wholeOf({ ...many, document }, book.items, startReceive)
        .sample.map((l) => l.lineId)
        .join();
    expect(new Set(Array.from({ length: 30 }, (_, i) => drawn(`P-${i}`))).size).toBeGreaterThan(15);
  });

  it('is for those who may, and leaves out what must be looked at', () => {
    const none: ReceiveTask = { ...many, whole: { may: false, sample: 0 } };
    expect(checkWhole(none, wholeOf(none, book.items, startReceive))?.title).toBe('Not as a whole');
    const looked: ReceiveTask = { ...many, inspect: { 1: 'first delivery' }, whole: { may: true, sample: 0 } };
    expect(wholeOf(looked, book.items, startReceive).lines.map(({ line: l }) => l.itemId)).toEqual(Array(6).fill(2));
  });
});

describe('fingers without a code at hand', () => {
  it('find goods by words, those that are due first, whatever their marks and case', () => {
    const items = { ...book.items, 9: { ...book.items['2']!, id: 9, sku: 'KAS', name: 'Käse-Lid, grün' } };
    expect(findWords({ ...book, items }, 'lid', 5, { first: new Set([2]) }).map((f) => f.code)).toEqual(['LID', 'KAS']);
    expect(findWords({ ...book, items }, 'GRUN kase', 5).map((f) => f.code)).toEqual(['KAS']);
    expect(findWords({ ...book, items }, '   ', 5)).toEqual([]);
    expect(findWords(book, '-01-', 1)).toEqual([{ code: 'A-01-1', says: 'pick face', kind: 'place' }]);
    expect(findWords(book, 'dock', 5, { place: (p) => p.siteId === 1 }).map((f) => f.code)).toEqual(['DOCK-1']);
  });

  it('are never said to have scanned what they typed or chose', () => {
    expect(run(task, typed('JAR')).last?.feedback?.detail).toBe('A jar, chosen by hand');
    expect(run(task, scan(codes.jar)).last?.feedback?.detail).toBe('Scanned a jar');
  });

  it('propose a lot by the day and the paper, never longer than a lot may be', () => {
    expect(proposedLot('2026-11-29', 'P-1187')).toBe('20261129-P1187');
    expect(proposedLot('2026-11-29', 'ARRIVAL-2026-000123').length).toBeLessThanOrEqual(20);
    expect(proposedLot('2026-11-29', '-')).toBe('20261129');
  });
});
