import type { Check } from '../../inspection/index.js';
import { answersOf, inspect, startInspect, unjudged, type InspectTask } from '../index.js';
import { type AnyInput, book, codes, count, over, places, scan, walk } from './book.js';

const QUARANTINE = { id: 108, code: 'QUARANTINE-1', kind: 'quarantine', siteId: 1 };
const withPlace = { ...book, places: { ...book.places, [QUARANTINE.code]: QUARANTINE } };
const seals: Check = { no: 1, says: 'Seals whole', kind: 'yes', unit: '', low: null, high: null };
const wall: Check = { no: 2, says: 'Wall', kind: 'measure', unit: 'mm', low: '1.2', high: '1.4' };

const goods = (more: Partial<InspectTask['goods'][number]> = {}) => ({
  inspection: 'Q-0001',
  itemId: 1,
  lotId: 0,
  lot: null,
  placeId: 100,
  place: 'DOCK-1',
  units: 60,
  supplier: 'Vetchley Glass',
  why: 'every delivery is looked at',
  checks: [],
  answers: {},
  ...more,
});
const task = (list = [goods()], quarantine: InspectTask['quarantine'] = QUARANTINE): InspectTask => ({
  siteId: 1,
  quarantine,
  goods: list,
});

const passes = { kind: 'verdict' as const, verdict: 'pass' as const };
const reason = (value: string) => ({ kind: 'reason' as const, value });
const check = (no: number, value: string) => ({ kind: 'check' as const, no, value });
const back = { kind: 'verdict' as const, verdict: 'back' as const };

function run(t: InspectTask, ...inputs: AnyInput[]) {
  const walked = walk(over(inspect, withPlace), t, startInspect, ...inputs);
  return { ...walked, feedback: walked.last?.feedback };
}

describe('looking at goods', () => {
  it('passes all of a delivery by two scans: the goods and the card', () => {
    const { state, commands, feedback } = run(task(), scan(codes.jar), scan('VX-CONFIRM'));
    expect(commands).toMatchObject([{ kind: 'judge', inspection: 'Q-0001', placeId: 100, units: 60, verdict: 'pass', how: 'scanned' }]);
    expect(feedback).toMatchObject({ band: 'accepted', title: '1 tray and 12 jars passed' });
    expect(unjudged(goods(), state)).toBe(0);
  });

  it('says why it is looked at, and where it stands', () => {
    expect(run(task(), scan(codes.jar)).feedback?.detail).toBe('1 tray and 12 jars at DOCK-1: every delivery is looked at');
  });

  it('passes a part and rejects the rest to quarantine by the label of the place', () => {
    const { commands } = run(task(), scan(codes.jar), count(11, 50), passes, reason('cracked'), scan('QUARANTINE-1'));
    expect(commands).toMatchObject([
      { units: 50, verdict: 'pass' },
      { units: 10, verdict: 'quarantine', reason: 'cracked' },
    ]);
  });

  it('sends back what is rejected, and wants to know why', () => {
    const first = run(task(), scan(codes.jar), back);
    expect(first.feedback).toMatchObject({ band: 'not-this', title: 'Say why' });
    const { commands } = run(task(), scan(codes.jar), reason('wrong glass'), back);
    expect(commands).toMatchObject([{ verdict: 'back', reason: 'wrong glass', units: 60 }]);
  });

  it('does not pass before each check is answered', () => {
    const listed = task([goods({ checks: [seals, wall] })]);
    const early = run(listed, scan(codes.jar), check(1, 'yes'), passes);
    expect(early.feedback).toMatchObject({ title: '1 of 2 checks open', detail: 'Before it passes: Wall' });
    const { commands } = run(listed, scan(codes.jar), check(1, 'yes'), check(2, '1.3'), passes);
    expect(commands.map((c) => (c as { kind: string }).kind)).toEqual(['check', 'check', 'judge']);
  });

  it('passes in spite of a check only with a reason', () => {
    const listed = task([goods({ checks: [seals], answers: { 1: 'no' } })]);
    expect(run(listed, scan(codes.jar), passes).feedback?.title).toBe('A check was not fulfilled');
    const said = run(listed, scan(codes.jar), reason('sealed anew'), passes);
    expect(said.commands).toMatchObject([{ verdict: 'pass', reason: 'sealed anew' }]);
  });

  it('keeps no answer that is none', () => {
    const { state, commands, feedback } = run(task([goods({ checks: [wall] })]), scan(codes.jar), check(2, 'thick'));
    expect(commands).toEqual([]);
    expect(feedback?.detail).toBe('Type a number in mm');
    expect(answersOf(goods(), state)).toEqual({});
  });

  it('refuses more than waits, nothing, goods that do not wait, and a verdict with empty hands', () => {
    expect(run(task(), scan(codes.jar), count(12, 2), passes).feedback).toMatchObject({
      band: 'too-many',
      title: 'Only 1 tray and 12 jars wait here',
    });
    expect(run(task(), scan(codes.jar), count(12, 0), passes).feedback?.title).toBe('Nothing counted');
    expect(run(task(), scan(codes.lid)).feedback).toMatchObject({ band: 'not-this', detail: 'None of it waits to be looked at' });
    expect(run(task(), passes).feedback?.title).toBe('Nothing in hand');
    expect(run(task(), scan(places.binA.code)).feedback?.detail).toBe('Scan the goods that you look at');
    expect(run(task(), scan(codes.unknown)).feedback?.band).toBe('unknown');
  });

  it('needs a place for what it sets aside', () => {
    const reject = [scan(codes.jar), reason('cracked'), scan('VX-APART')] as const;
    expect(run(task(undefined, null), ...reject).feedback?.title).toBe('No quarantine here');
  });

  it('takes the lot that the label names, and the oldest delivery first', () => {
    const lots = [
      goods({ inspection: 'Q-1', itemId: 3, lotId: 7, lot: 'L7' }),
      goods({ inspection: 'Q-2', itemId: 3, lotId: 8, lot: 'L8' }),
    ];
    expect(run(task(lots), scan(codes.syrup)).state.hand?.goods).toBe('Q-1/7/100');
    expect(run(task(lots), scan(']C1010950600013436910L8')).state.hand?.goods).toBe('Q-2/8/100');
    expect(run(task(lots), scan(']C1010950600013436910L9')).feedback?.detail).toBe('Lot L9 does not wait to be looked at');
  });
});
