import { Link } from 'react-router';
import type { Dto } from '../../api/client';
import { useNow } from '../../api/queries';
import { age, dayWord, plural } from '../../ui/format';
import { RowLink } from '../../ui/button';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { TapeColumn } from '../../ui/tape';
import { FirstSteps } from './first-steps';
import { HourChart } from './hour-chart';
import { GlyphCell } from '../../ui/table';
import { BlockHead } from '../../ui/page';

type Stuck = Dto['StuckDto'];

/** Groups by whoever can move a thing, in the order they come. */
function byWho(stuck: Stuck[]): [string, Stuck[]][] {
  const groups = new Map<string, Stuck[]>();
  for (const s of stuck) groups.set(s.who, [...(groups.get(s.who) ?? []), s]);
  return [...groups];
}

function StuckTable({ stuck }: { stuck: Stuck[] }) {
  const first = stuck[0];
  if (!first) return <Empty title="Nothing is stuck or late">Everything moves. New trouble shows here with who can clear it.</Empty>;
  return (
    <table className="wait">
      <tbody>
        {byWho(stuck).map(([who, list]) =>
          list.map((s, i) => (
            <tr key={s.code + s.detail} className={i === 0 ? 'first' : ''}>
              {i === 0 && (
                <th rowSpan={list.length} scope="rowgroup">
                  <b>{who}</b>
                  <span className="note">{s.whoNote}</span>
                </th>
              )}
              <GlyphCell>
                <Glyph name={s.glyph as GlyphName} size={14} says />
              </GlyphCell>
              <td>
                <b>
                  <span className="code">{s.code}</span> {s.title}
                </b>
                <span className="note">{s.detail}</span>
              </td>
              <td className={`num ${s.late ? 'stamped' : 'mid'}`}>{s.late ? `late ${age(s.since)}` : age(s.since)}</td>
              <td className="num">
                <RowLink to={s.link} first={s === first}>
                  {s.action} {s === first && <Glyph name="go" size={13} />}
                </RowLink>
              </td>
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}

function Expected({ expected }: { expected: Dto['ExpectedDto'][] }) {
  if (expected.length === 0) return <Empty title="Nothing is on its way">Place a purchase order in Inbound.</Empty>;
  return (
    <ul className="arr">
      {expected.map((e) => (
        <li key={e.code}>
          <time>{dayWord(e.expectedOn).replace(/ \w+$/, '')}</time>
          <Glyph name={e.late ? 'blocked' : e.state === 'part-received' ? 'half' : 'empty'} says />
          <div>
            <Link to={`/inbound/${e.code}`}>{e.supplier}</Link>
            <span className="note">
              <span className="code">{e.code}</span> {plural(e.lines, 'line', 'lines')}
            </span>
          </div>
          <div className="r">
            <span>{e.state === 'part-received' ? 'part in' : ''}</span>
            {e.late && <span className="note stamped">late</span>}
          </div>
        </li>
      ))}
    </ul>
  );
}

/** The morning at a glance: today's promises, what is stuck and who can move it, what is on its way, the tape. */
export function NowPage() {
  const now = useNow();
  return (
    <div className="now">
      <div className="now-main">
        <Shown query={now} rows={14}>
          {(n) => (
            <>
              <FirstSteps />
              <HourChart promised={n.promised} departures={n.departures} lastLeavesAt={n.lastLeavesAt} now={now.dataUpdatedAt} />
              <div className="two">
                <section>
                  <BlockHead>
                    <h2>Stuck or late</h2>
                    <span className="note">{plural(n.stuck.length, 'thing', 'things')}, by who can move them</span>
                  </BlockHead>
                  <StuckTable stuck={n.stuck} />
                </section>
                <section>
                  <BlockHead>
                    <h2>Expected</h2>
                    <span className="note">{plural(n.expected.length, 'order', 'orders')}</span>
                  </BlockHead>
                  <Expected expected={n.expected} />
                </section>
              </div>
            </>
          )}
        </Shown>
      </div>
      <TapeColumn />
    </div>
  );
}
