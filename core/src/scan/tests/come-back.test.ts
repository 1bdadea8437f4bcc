import { comeBack, type GoodsComingBack, type ReturnTask, startComeBack, stillOut } from '../index.js';
import { type AnyInput, book as plain, codes, count, over, scale, scan, walk } from './book.js';

const QUARANTINE = { id: 108, code: 'QUARANTINE-1', kind: 'quarantine', siteId: 1 };
const book = { ...plain, items: { ...plain.items, 4: scale }, places: { ...plain.places, [QUARANTINE.code]: QUARANTINE } };

const jars = (more: Partial<GoodsComingBack> = {}): GoodsComingBack => ({
  orderLineId: 7,
  itemId: 1,
  announced: 2,
  left: 50,
  reason: 'unwanted',
  lots: [],
  numbers: [],
  ...more,
});
const cans = jars({
  orderLineId: 8,
  itemId: 3,
  announced: 0,
  left: 5,
  lots: [
    { lot: 'L1', left: 3 },
    { lot: 'L2', left: 2 },
  ],
});
const scales = jars({
  orderLineId: 9,
  itemId: 4,
  left: 2,
  lots: [
    { lot: 'SN-1', left: 1 },
    { lot: 'SN-2', left: 1 },
  ],
});
const task = (goods = [jars()], more: Partial<ReturnTask> = {}): ReturnTask => ({
  siteId: 1,
  code: 'G-0001',
  customer: 'Wick Hill Farm',
  order: 'S-20417',
  wish: null,
  over: false,
  quarantine: QUARANTINE,
  goods,
  ...more,
});
const came = (as: 'as-new' | 'opened' | 'damaged' | 'faulty') => ({ kind: 'came' as const, as });
const fate = (to: 'shelf' | 'scrap' | 'repair') => ({ kind: 'fate' as const, fate: to });

function run(t: ReturnTask, ...inputs: AnyInput[]) {
  const walked = walk(over(comeBack, book), t, startComeBack, ...inputs);
  return { ...walked, feedback: walked.last?.feedback };
}

describe('taking back what a customer sends', () => {
  it('takes a piece by a scan, how it came, and the card', () => {
    const { commands, state, feedback } = run(task(), scan(codes.jar), came('as-new'), scan('VX-CONFIRM'));
    expect(commands).toMatchObject([
      { kind: 'come-back', code: 'G-0001', orderLineId: 7, units: 1, cameAs: 'as-new', fate: 'shelf', how: 'scanned' },
    ]);
    expect(feedback).toMatchObject({ band: 'accepted', title: '1 jar back', detail: 'Jar 454 g: back on the shelf' });
    expect(stillOut(jars(), state)).toBe(49);
    expect(state.hand).toBeNull();
  });

  it('counts each scan of the same goods, by its pack', () => {
    expect(run(task(), scan(codes.jar), scan(codes.jar)).state.hand?.units).toBe(2);
    expect(run(task(), scan(codes.tray), scan(codes.jar)).state.hand?.units).toBe(49);
    expect(run(task(), scan(codes.tray), scan(codes.tray)).feedback).toMatchObject({ band: 'too-many' });
  });

  it('decides nothing before somebody has said how they came back', () => {
    const { commands, feedback } = run(task(), scan(codes.jar), scan('VX-CONFIRM'));
    expect(feedback?.detail).toBe('Say first how it came back');
    expect(commands).toMatchObject([{ kind: 'refused' }]);
  });

  it('puts nothing damaged back on the shelf', () => {
    expect(run(task(), scan(codes.jar), came('damaged'), fate('shelf')).feedback).toMatchObject({
      band: 'not-this',
      title: 'Not back on the shelf',
    });
  });

  it('takes no more than left, also of what was counted on the pad', () => {
    const { feedback } = run(task([jars({ left: 3 })]), scan(codes.jar), count(11, 3), came('as-new'), fate('shelf'), scan(codes.jar));
    expect(feedback).toMatchObject({ band: 'too-many', title: 'All of it is back' });
  });

  it('refuses goods that did not leave with the order, and says what to do', () => {
    expect(run(task(), scan(codes.lid)).feedback).toMatchObject({
      band: 'not-this',
      detail: 'It did not leave with S-20417. Take it back with the order that it came from',
    });
  });

  it('wants the lot where two of them left, and refuses one that did not', () => {
    const asked = run(task([cans]), scan(codes.syrup), came('as-new'), scan('VX-CONFIRM'));
    expect(asked.feedback?.detail).toBe('Scan or choose its lot');
    const chosen = run(task([cans]), scan(codes.syrup), { kind: 'lot', lot: 'L2' }, came('as-new'), scan('QUARANTINE-1'));
    expect(chosen.commands).toMatchObject([{ lot: 'L2', fate: 'quarantine' }]);
    const more = run(task([cans]), scan(codes.syrup), { kind: 'lot', lot: 'L2' }, count(31, 3), came('as-new'), scan('QUARANTINE-1'));
    expect(more.feedback).toMatchObject({ band: 'too-many', title: 'Only 2 cans of L2' });
  });

  it('knows a piece by its number', () => {
    const { commands } = run(task([scales], { wish: 'repair' }), scan('sn-2'), came('faulty'), scan('VX-CONFIRM'));
    expect(commands).toMatchObject([{ itemId: 4, lot: 'SN-2', units: 1, fate: 'repair' }]);
    expect(run(task([scales]), scan('SN-9')).feedback).toMatchObject({ band: 'unknown' });
  });

  it('knows a number that was scanned at the packing table', () => {
    const { commands } = run(task([jars({ numbers: ['N-77'] })]), scan('N-77'), came('opened'), scan('VX-CONFIRM'));
    expect(commands).toMatchObject([{ number: 'N-77', units: 1, fate: 'quarantine' }]);
  });

  it('takes what nobody knows the order of, in a lot that is said', () => {
    const free = jars({ orderLineId: null, itemId: 3, announced: 0, left: 1000, lots: [] });
    const { commands } = run(
      task([free], { order: null }),
      scan(codes.syrup),
      { kind: 'lot', lot: 'X1' },
      came('opened'),
      scan('VX-CONFIRM'),
    );
    expect(commands).toMatchObject([{ orderLineId: null, lot: 'X1' }]);
  });

  it('books what is in hand once other goods are scanned, and forgets nothing of it', () => {
    const open = run(task([jars(), cans]), scan(codes.jar), scan(codes.syrup));
    expect(open.feedback).toMatchObject({ band: 'not-this', detail: 'Say first how Jar 454 g came back' });
    expect(open.state.hand?.itemId).toBe(1);
    const said = run(task([jars(), cans]), scan(codes.jar), came('damaged'), scan(codes.syrup));
    expect(said.commands).toMatchObject([{ itemId: 1, fate: 'scrap' }]);
    expect(said.state.hand).toMatchObject({ itemId: 3, units: 1 });
  });

  it('takes pieces with numbers one after another', () => {
    const { commands, state } = run(task([scales]), scan('SN-1'), came('as-new'), scan('SN-2'), came('opened'), scan('VX-CONFIRM'));
    expect(commands).toMatchObject([
      { lot: 'SN-1', fate: 'shelf' },
      { lot: 'SN-2', fate: 'quarantine' },
    ]);
    expect(state.hand).toBeNull();
  });

  it('takes nothing once the return is settled', () => {
    expect(run(task([jars()], { over: true }), scan(codes.jar)).feedback?.detail).toContain('settled');
  });
});
