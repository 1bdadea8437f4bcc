import { Link } from 'react-router';
import type { Dto } from '../../api/client';
import { clock } from '../../ui/format';
import { Glyph, orderGlyph, type GlyphName } from '../../ui/glyph';

type Promised = Dto['PromisedOrderDto'];
const FIRST_HOUR = 8;
const LAST_HOUR = 20;
const TALLEST = 7;

const hourOf = (at: string | Date) => {
  const d = new Date(at);
  return d.getHours() + d.getMinutes() / 60;
};
const share = (hour: number) => `${(100 * (Math.min(LAST_HOUR, Math.max(FIRST_HOUR, hour)) - FIRST_HOUR)) / (LAST_HOUR - FIRST_HOUR)}%`;
const glyphOf = (o: Promised): GlyphName => orderGlyph(o.state, !o.safe && o.state !== 'shipped');

/** Today's orders in half hours, stacked at their promise: gone, moving, or not safe. */
export function HourChart({ promised, departures }: { promised: Promised[]; departures: Dto['DepartureDto'][] }) {
  const gone = promised.filter((o) => o.state === 'shipped').length;
  const unsafe = promised.filter((o) => o.state !== 'shipped' && !o.safe).length;
  const moving = promised.length - gone - unsafe;
  const halves = Array.from({ length: (LAST_HOUR - FIRST_HOUR) * 2 }, (_, i) =>
    promised.filter((o) => Math.floor((hourOf(o.promisedAt) - FIRST_HOUR) * 2) === i),
  );
  const now = hourOf(new Date());
  return (
    <section aria-label={`${promised.length} orders promised today: ${gone} gone, ${moving} moving, ${unsafe} not safe`}>
      <div className="flex items-center gap-4">
        <h1 className="saywords">
          {promised.length} {promised.length === 1 ? 'order' : 'orders'} promised today:{' '}
          <Link to="/orders?show=gone" className="why">
            {gone} gone
          </Link>
          ,{' '}
          <Link to="/orders" className="why">
            {moving} moving
          </Link>
          ,{' '}
          <Link to="/orders?show=stuck" className="why">
            {unsafe} not safe
          </Link>
        </h1>
        <div className="ml-auto flex gap-3 note items-center" aria-hidden>
          {(['empty', 'quarter', 'half', 'most', 'full', 'blocked'] as const).map((g, i) => (
            <span key={g} className="flex gap-1 items-center">
              <Glyph name={g} size={12} /> {['waiting', 'picking', 'picked', 'packed', 'gone', 'not safe'][i]}
            </span>
          ))}
        </div>
      </div>
      <div
        className="relative mt-8 grid border-b-[1.5px] border-ink"
        style={{ gridTemplateColumns: `repeat(${halves.length}, minmax(0, 1fr))` }}
        aria-hidden
      >
        <div className="absolute left-0 top-0 bottom-0 bg-shade" style={{ width: share(now) }} />
        {halves.map((orders, i) => (
          <div key={i} className={`h-[118px] flex flex-col justify-end relative ${i % 2 === 0 ? 'border-l border-rule' : ''}`}>
            <div className="flex flex-wrap-reverse content-start gap-[3px] px-[3px] pb-[5px] text-[13px]">
              {orders.slice(0, TALLEST * 3).map((o) => (
                <Link key={o.code} to={`/orders/${o.code}`} title={`${o.code}, ${o.state}`} tabIndex={-1} className="leading-none">
                  <Glyph name={glyphOf(o)} />
                </Link>
              ))}
            </div>
            <div className="h-[19px] border-t border-rule pl-[5px] text-note text-ink-2">
              {i % 2 === 0 ? `${FIRST_HOUR + i / 2}:00` : ''}
            </div>
          </div>
        ))}
        {departures
          .filter((d) => hourOf(d.at) > now)
          .map((d) => (
            <div
              key={d.carrier}
              className="absolute -top-[19px] -bottom-px border-l-[1.5px] border-dashed border-ink-3"
              style={{ left: share(hourOf(d.at)) }}
            >
              <span className="absolute left-[6px] top-0 text-note leading-[15px] whitespace-nowrap text-ink-2">
                {clock(d.at)} {d.carrier.split(' ')[0]}
              </span>
            </div>
          ))}
        <div className="absolute -top-[19px] -bottom-px border-l-2 border-ink" style={{ left: share(now) }}>
          <span className="absolute right-[6px] top-0 text-note leading-[15px] font-[680]">{clock(new Date())}</span>
        </div>
      </div>
    </section>
  );
}
