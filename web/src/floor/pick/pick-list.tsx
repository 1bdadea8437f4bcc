import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Dto } from '../../api/client';
import { plural, when } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Ask, NoItem, PhoneBody, PhoneHead, PhoneItem, PhoneList } from '../../ui/phone/parts';
import { Shown } from '../../ui/states';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { useRounds } from '../rounds';
import { usePageScan } from '../scan-context';

/** One's own rounds first, then those for anybody, then what others have in hand. */
const turn = (r: Dto['RoundRowDto']) => (r.mine ? 0 : r.picker || r.sentTo ? 2 : 1);
const firstName = (name: string) => name.split(' ')[0] ?? name;

/** Rounds that wait, oldest promise first; one's own on top. */
export function PickList() {
  const navigate = useNavigate();
  const rounds = useRounds();
  usePageScan(useCallback((code) => void navigate(`/floor/pick/${code.trim().toUpperCase()}`), [navigate]));
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
      </PhoneHead>
      <Ask>Which round?</Ask>
      <PhoneBody className="mt-3">
        <Shown query={rounds}>
          {({ rows: all }) => {
            const list = all.filter((r) => r.state !== 'set-down').sort((a, b) => turn(a) - turn(b));
            return (
              <PhoneList>
                {list.map((r, i) => (
                  <PhoneItem key={r.code} next={i === 0}>
                    <Link to={`/floor/pick/${r.code}`}>
                      <b>
                        {r.urgent && 'Urgent: '}
                        {r.orders.length === 1 ? r.orders[0]?.customer : plural(r.orders.length, 'order', 'orders')}
                      </b>
                      <Glyph name={progressGlyph(r.stopsDone, r.stops)} size={24} says />
                      <span>
                        <span className="code">{r.code}</span>, {plural(r.stops - r.stopsDone, 'stop', 'stops')}, {r.metres} m, by{' '}
                        {when(r.leavesAt ?? r.promisedAt)}
                        {r.pooled && ', sorted at the wall'}
                        {whose(r)}
                      </span>
                    </Link>
                  </PhoneItem>
                ))}
                {list.length === 0 && <NoItem>No round waits. The office sends orders to picking.</NoItem>}
              </PhoneList>
            );
          }}
        </Shown>
      </PhoneBody>
      <FloorKeys siteId={undefined} />
    </>
  );
}

function whose(r: Dto['RoundRowDto']): string {
  if (r.picker) return r.mine ? ', yours' : `, ${firstName(r.picker)} is on it`;
  if (r.sentTo) return r.mine ? ', sent to you' : `, sent to ${firstName(r.sentTo)}`;
  return '';
}
