import { paramsOf, viewOf } from './order-views';
import { groupsOf } from './orders-table';
import { projectionWords } from './promise-chart';
import { isWrong } from '../setup/channels/channel-beliefs';

const row = (code: string, customer: string, channel: string) =>
  ({ code, customer, channel, promisedAt: '2027-03-01T15:30:00Z', leavesAt: null }) as never;

describe('a view of the orders', () => {
  it('is in the address, without what is usual, and nothing that the address invents', () => {
    const view = viewOf(new URLSearchParams('show=short&by=channel&channel=SHOP&search=wick'));
    expect(view).toEqual({ show: 'short', by: 'channel', channel: 'SHOP', search: 'wick' });
    expect(paramsOf(view)).toEqual({ show: 'short', by: 'channel', channel: 'SHOP', search: 'wick' });
    expect(viewOf(new URLSearchParams('show=everything&by=colour'))).toEqual({ show: 'all', by: 'departure', channel: '', search: '' });
    expect(paramsOf(viewOf(new URLSearchParams()))).toEqual({});
  });

  it('groups by customer or channel, and leaves those that are over in one list', () => {
    const orders = [row('S-1', 'Wick', 'Shop'), row('S-2', 'Moss', 'Shop'), row('S-3', 'Wick', 'Phone')];
    expect(groupsOf(orders, 'all', 'customer').map((g) => [g.title, g.list.length])).toEqual([
      ['Wick', 2],
      ['Moss', 1],
    ]);
    expect(groupsOf(orders, 'all', 'channel').map((g) => g.note)).toEqual(['2 orders', '1 order']);
    expect(groupsOf(orders, 'gone', 'channel')).toHaveLength(1);
  });
});

it('says in a sentence what may be promised, now and later', () => {
  const at = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString();
  const says = (steps: [number, number][]) => projectionWords({ name: 'Jar', steps: steps.map(([d, units]) => ({ at: at(d), units })) });
  expect(says([[0, 5]])).toBe('5 of Jar may be promised now, and no more is to come');
  expect(
    says([
      [0, -3],
      [2, 4],
      [9, 50],
    ]),
  ).toMatch(/^0 of Jar may be promised now, 4 from .+, 50 from .+$/);
});

it('holds a channel’s own word against what is true, and what it was told where it has said nothing', () => {
  expect(isWrong({ units: 5, told: 5, believes: null })).toBe(false);
  expect(isWrong({ units: 5, told: 5, believes: 4 })).toBe(true);
  expect(isWrong({ units: 5, told: null, believes: null })).toBe(true);
});
