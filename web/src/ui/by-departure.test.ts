import { byDeparture } from './by-departure';

const noon = new Date().setHours(12, 0, 0, 0);
const at = (hour: number, days = 0) => new Date(noon + ((hour - 12) * 60 + 30 + days * 1440) * 60_000).toISOString();
const order = (code: string, promisedAt: string, leavesAt: string | null = promisedAt) => ({ code, promisedAt, leavesAt });
const grouped = (...orders: ReturnType<typeof order>[]) => byDeparture(orders, ['order', 'orders'], noon);

describe('orders by departure', () => {
  it('stand under the van that they must catch, late ones first', () => {
    const groups = grouped(order('S-2', at(16)), order('S-1', at(15)), order('S-3', at(9)), order('S-4', at(15)));
    expect(groups.map((g) => g.list.map((o) => o.code))).toEqual([['S-3'], ['S-1', 'S-4'], ['S-2']]);
    expect(groups.map((g) => g.title)).toEqual(['Late', 'Leaves at 15:30', 'Leaves at 16:30']);
    expect(groups.map((g) => g.note)).toEqual(['1 order', '2 orders, in 3 h 30', '1 order, in 4 h 30']);
  });

  it('go by the van, not by the minute that was promised', () => {
    const groups = grouped(order('S-1', at(15)), order('S-2', at(17), at(15)), order('S-3', at(16), at(15)));
    expect(groups.map((g) => g.list.length)).toEqual([3]);
  });

  it('name the day where it is another one', () => {
    expect(grouped(order('S-1', at(15, 1)))[0]?.title).toMatch(/^Leaves \w{3} \d+ \w{3}, 15:30$/);
  });

  it('go by the promise where no departure is known', () => {
    expect(grouped(order('S-1', at(18), null))[0]?.title).toBe('Leaves at 18:30');
  });
});
