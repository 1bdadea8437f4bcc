import { isEarly, load, type LoadCommand, type LoadParcel, type LoadTask, laneNow, startLoad } from '../index.js';
import { type AnyInput, codes, scan, walk } from './book.js';

const VAN = '2026-05-14T14:30:00.000Z';
const LATER = '2026-05-14T16:00:00.000Z';
const parcel = (code: string, more: Partial<LoadParcel> = {}): LoadParcel => ({
  code,
  order: `S-${code.slice(-1)}`,
  customer: `Customer ${code.slice(-1)}`,
  tracking: `HP${code.slice(-1)}000GB`,
  labelled: true,
  held: null,
  loaded: false,
  leavesAt: VAN,
  missed: false,
  ...more,
});
const task: LoadTask = {
  siteId: 1,
  carrier: 'HARRIER',
  carrierName: 'Harrier Post',
  lane: 'LANE-H',
  van: VAN,
  parcels: [
    parcel('S-1-1'),
    parcel('S-2-2'),
    parcel('S-3-3', { labelled: false, tracking: null }),
    parcel('S-4-4', { held: 'address in doubt' }),
    parcel('S-5-5', { leavesAt: LATER }),
    parcel('S-6-6', { order: 'S-7' }),
    parcel('S-7-7', { order: 'S-7' }),
  ],
  elsewhere: [{ code: 'S-9-1', tracking: 'NF77', carrierName: 'Northway Freight', lane: 'LANE-N' }],
};
const done = (...inputs: AnyInput[]) => {
  const walked = walk(load, task, startLoad, ...inputs);
  return { ...walked, made: walked.commands.filter((c) => c.kind !== 'refused') };
};
const bands = (code: string) => {
  const { last, made } = done(scan(code));
  return [last?.feedback?.band, last?.feedback?.detail, made.length];
};
const all = { kind: 'all' as const };
const sign = (driver: string) => ({ kind: 'hand-over' as const, driver, signature: 'M0 0L9 9' });
const off = { kind: 'off' as const, parcel: 'S-1-1' };

describe('loading a van', () => {
  it('takes a parcel by its code, its tracking number or the order that has one parcel', () => {
    for (const code of ['S-1-1', 'hp1000gb', 'S-1']) {
      const { commands, last } = done(scan(code));
      expect(commands).toMatchObject([{ kind: 'load', siteId: 1, carrier: 'HARRIER', parcels: ['S-1-1'], early: false, how: 'scanned' }]);
      expect(last?.feedback).toMatchObject({ band: 'accepted', title: 'S-1-1', detail: 'Customer 1, 3 more' });
    }
  });

  it('refuses each that may not go, and says why and where it belongs', () => {
    expect(bands('S-3-3')).toEqual(['not-this', expect.stringContaining('no label yet'), 0]);
    expect(bands('S-4-4')).toEqual(['not-this', expect.stringContaining('held: address in doubt'), 0]);
    expect(bands('NF77')).toEqual(['not-this', 'It goes with Northway Freight: lane LANE-N', 0]);
    expect(bands('S-7')).toEqual(['not-this', expect.stringContaining('2 parcels'), 0]);
    expect(bands(codes.lid)).toEqual(['not-this', expect.stringContaining('not the goods'), 0]);
    expect(bands('S-404-1')).toEqual(['unknown', expect.any(String), 0]);
    const twice = done(scan('S-1-1'), scan('S-1-1'));
    expect(twice.last?.feedback).toMatchObject({ band: 'too-many', detail: 'It is on the van already' });
  });

  it('refuses what a later van takes, until it is scanned again or taken along by its card', () => {
    expect(bands('S-5-5')).toEqual(['not-this', expect.stringContaining('later van'), 0]);
    for (const second of ['S-5-5', 'VX-TAKE']) {
      const { commands } = done(scan('S-5-5'), scan(second));
      expect(commands.filter((c) => c.kind === 'load')).toMatchObject([{ parcels: ['S-5-5'], early: true }]);
    }
    // Another parcel between: the first is asked about anew.
    const between = done(scan('S-5-5'), scan('S-1-1'), scan('S-5-5'));
    expect(between.commands.filter((c) => c.kind === 'load')).toHaveLength(1);
  });

  it('loads at once all that this van takes, and hands over what is loaded and nothing else', () => {
    expect((done(all).made[0] as LoadCommand).parcels).toEqual(['S-1-1', 'S-2-2', 'S-6-6', 'S-7-7']);
    expect(done(all, all).last?.feedback?.band).toBe('not-this');
    expect(done(sign('Odo Fenn')).last?.feedback).toMatchObject({ band: 'not-this', title: 'Nothing is loaded' });
    expect(done(scan('S-2-2'), sign('  ')).last?.feedback?.title).toBe('Who takes them?');
    const { made, last } = done(scan('S-2-2'), sign(' Odo Fenn '));
    expect(made.at(-1)).toMatchObject({ kind: 'hand-over', parcels: ['S-2-2'], driver: 'Odo Fenn', signature: 'M0 0L9 9' });
    // Gone from here at once, before the house has answered.
    expect(laneNow(task, last!.state).map((p) => p.code)).not.toContain('S-2-2');
  });

  it('takes a parcel off again, and it may be loaded once more', () => {
    const { made, last } = done(scan('S-1-1'), off, off, scan('S-1-1'));
    expect(made.map((c) => c.kind)).toEqual(['load', 'unload', 'load']);
    expect(laneNow(task, last!.state).find((p) => p.code === 'S-1-1')?.loaded).toBe(true);
  });

  it('knows no later van where a carrier has no set departures', () => {
    expect(isEarly(null, VAN)).toBe(false);
    expect(isEarly(LATER, null)).toBe(false);
    expect(isEarly(LATER, VAN)).toBe(true);
  });
});
