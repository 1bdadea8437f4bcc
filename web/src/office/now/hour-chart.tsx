import { Link } from 'react-router';
import type { Dto } from '../../api/client';
import { dayAt, today } from '../../api/site-day';
import { clock, day } from '../../ui/format';
import { Glyph, orderGlyph, type GlyphName } from '../../ui/glyph';
import { SentenceHead } from '../../ui/page';
import { flagRows } from './flags';
import { type HourColumn, type Hours, hoursOf } from './hours';
import { WhyLink } from '../../ui/why';

type Promised = Dto['PromisedOrderDto'];
/** As many glyphs as fit in a column of half an hour; the rest is a number. */
const MOST = 20;
const HALF_MS = 1_800_000;
const FLAG_PX = 17;

const glyphOf = (o: Promised): GlyphName => orderGlyph(o.state, !o.safe && o.state !== 'shipped');
const isGone = (o: Promised) => o.state === 'shipped';
const percent = (share: number) => `${100 * share}%`;

function Stack({ orders }: { orders: Promised[] }) {
  const over = orders.length - MOST;
  return (
    <div className="flex-1 flex flex-wrap-reverse content-start gap-[3px] px-[3px] pb-[5px] text-[13px]">
      {orders.slice(0, MOST).map((o) => (
        <Link key={o.code} to={`/orders/${o.code}`} title={`${o.code}, ${o.state}`} tabIndex={-1} className="leading-none">
          <Glyph name={glyphOf(o)} />
        </Link>
      ))}
      {over > 0 && <span className="note leading-none">+{over}</span>}
    </div>
  );
}

function Column({ column, promised }: { column: HourColumn; promised: Promised[] }) {
  if (column.hours > 1)
    return (
      <div className="relative h-[118px] flex flex-col justify-end border-l border-rule">
        <div className="h-[19px] border-t border-dashed border-rule-firm text-center text-note text-ink-3 overflow-hidden">
          {column.hours} h
        </div>
      </div>
    );
  const inHalf = (half: 0 | 1) => {
    const from = column.from + half * HALF_MS;
    return promised.filter(({ promisedAt }) => new Date(promisedAt).getTime() >= from && new Date(promisedAt).getTime() < from + HALF_MS);
  };
  return (
    <div className="relative h-[118px] flex flex-col justify-end border-l border-rule">
      <div className="flex items-end">
        <Stack orders={inHalf(0)} />
        <Stack orders={inHalf(1)} />
      </div>
      <div className="h-[19px] border-t border-rule pl-[5px] text-note text-ink-2">{clock(new Date(column.from))}</div>
    </div>
  );
}

/** The vans that are still to leave, as flags over the hours; those whose words would meet stand in rows above each other. */
function Flags({ departures, hours, now }: { departures: Dto['DepartureDto'][]; hours: Hours; now: number }) {
  const flags = [
    ...departures.map((d) => ({ at: hours.at(d.at), says: `${clock(d.at)} ${d.name}`, isNow: false })),
    { at: hours.at(now), says: clock(new Date(now)), isNow: true },
  ];
  return flagRows(flags).map(({ at, says, isNow, row, leftward }) => (
    <div
      key={`${says} ${row}`}
      className={`absolute bottom-0 ${isNow ? 'border-l-2 border-ink' : 'border-l-[1.5px] border-dashed border-ink-3'}`}
      style={{ left: percent(at), top: -FLAG_PX * (row + 1) }}
    >
      <span
        className={`absolute top-0 text-note leading-[15px] whitespace-nowrap ${leftward ? 'right-[6px]' : 'left-[6px]'} ${isNow ? 'font-[680]' : 'text-ink-2'}`}
      >
        {says}
      </span>
    </div>
  ));
}

/** The orders that are promised for the open day in half hours, stacked at their promise: gone, moving, or not safe. */
export function HourChart({
  promised,
  departures,
  lastLeavesAt,
  now,
}: Pick<Dto['NowDto'], 'promised' | 'departures' | 'lastLeavesAt'> & { now: number }) {
  const gone = promised.filter(isGone).length;
  const unsafe = promised.filter((o) => !isGone(o) && !o.safe).length;
  const moving = promised.length - gone - unsafe;
  const promises = (orders: Promised[]) => orders.map((o) => new Date(o.promisedAt).getTime());
  const hours = hoursOf(now, promises(promised.filter((o) => !isGone(o))), [
    ...promises(promised),
    ...departures.map((d) => new Date(d.at).getTime()),
    new Date(lastLeavesAt).getTime(),
  ]);
  const until = dayAt(lastLeavesAt) === today() ? 'today' : `until ${day(lastLeavesAt)}`;
  const words = `${promised.length} ${promised.length === 1 ? 'order' : 'orders'} promised ${until}`;
  return (
    <section aria-label={`${words}: ${gone} gone, ${moving} moving, ${unsafe} not safe`}>
      <div className="flex items-center gap-4">
        <SentenceHead>
          {words}: <WhyLink to="/orders?show=gone">{gone} gone</WhyLink>, <WhyLink to="/orders">{moving} moving</WhyLink>,{' '}
          <WhyLink to="/orders?show=stuck">{unsafe} not safe</WhyLink>
        </SentenceHead>
        <div className="ml-auto flex gap-3 note items-center" aria-hidden>
          {(['empty', 'quarter', 'half', 'most', 'full', 'blocked'] as const).map((g, i) => (
            <span key={g} className="flex gap-1 items-center">
              <Glyph name={g} size={12} /> {['waiting', 'picking', 'picked', 'packed', 'gone', 'not safe'][i]}
            </span>
          ))}
        </div>
      </div>
      <div
        className="relative mt-11 grid border-b-[1.5px] border-ink"
        style={{ gridTemplateColumns: hours.columns.map((c) => `minmax(0, ${c.share}fr)`).join(' ') }}
        aria-hidden
      >
        <div className="absolute left-0 top-0 bottom-0 bg-shade" style={{ width: percent(hours.at(now)) }} />
        {hours.columns.map((c) => (
          <Column key={c.from} column={c} promised={promised} />
        ))}
        <Flags departures={departures} hours={hours} now={now} />
      </div>
    </section>
  );
}
