import { renderToStaticMarkup as render } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { HourChart } from './hour-chart';

const at = (hour: number, minute = 0, days = 0) => new Date(2026, 4, 14 + days, hour, minute).toISOString();
const order = (n: number, promisedAt: string, state = 'open', safe = true) => ({ code: `S-${n}`, promisedAt, state, safe });
const chart = (more: Partial<Parameters<typeof HourChart>[0]> = {}) =>
  render(
    <MemoryRouter>
      <HourChart
        promised={[order(1, at(15, 30)), order(2, at(15, 30), 'shipped'), order(3, at(16, 30), 'held', false)]}
        departures={[
          { name: 'Harrier Post', at: at(15, 30) },
          { name: 'Northway Freight', at: at(16, 30) },
        ]}
        lastLeavesAt={at(16, 30)}
        now={new Date(2026, 4, 14, 11, 5).getTime()}
        {...more}
      />
    </MemoryRouter>,
  );

describe('the hours on Now', () => {
  beforeAll(() => jest.useFakeTimers().setSystemTime(new Date(2026, 4, 14, 11, 5)));
  afterAll(() => jest.useRealTimers());

  it('say what is promised today, and how it stands', () => {
    expect(chart()).toContain('aria-label="3 orders promised today: 1 gone, 1 moving, 1 not safe"');
  });

  it('say until when where the last van of today has left', () => {
    const next = {
      promised: [order(1, at(15, 30, 1))],
      departures: [{ name: 'Harrier Post', at: at(15, 30, 1) }],
      lastLeavesAt: at(15, 30, 1),
    };
    expect(chart(next)).toContain('1 order promised until Fri 15 May');
  });

  it('have a flag for each van that is still to leave, and for now', () => {
    const html = chart();
    for (const flag of ['15:30 Harrier Post', '16:30 Northway Freight', '11:05']) expect(html).toContain(flag);
  });

  it('fold what is empty, and say how long it is', () => {
    expect(chart()).toContain('3 h');
    expect(chart()).toContain('11:00');
    expect(chart()).not.toContain('13:00');
  });

  it('count those for which a column has no room', () => {
    const many = Array.from({ length: 26 }, (_, i) => order(i, at(15, 30)));
    const html = chart({ promised: many });
    expect(html.match(/href="\/orders\/S-/g)).toHaveLength(20);
    expect(html).toContain('+6');
  });

  it('are drawn in a house without orders or vans', () => {
    const html = chart({ promised: [], departures: [] });
    expect(html).toContain('0 orders promised today');
    expect(html).not.toContain('NaN');
  });
});
