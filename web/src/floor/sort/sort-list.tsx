import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import { plural, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, NoItem, PhoneBody, PhoneHead, PhoneItem, PhoneList } from '../../ui/phone/parts';
import { Shown } from '../../ui/states';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { isToSort, useRounds } from '../rounds';
import { usePageScan } from '../scan-context';

/** Pooled rounds that stand at a wall, oldest promise first. */
export function SortList() {
  const navigate = useNavigate();
  const rounds = useRounds();
  usePageScan(useCallback((code) => void navigate(`/floor/sort/${code.trim().toUpperCase()}`), [navigate]));
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
          {({ rows }) => {
            const list = rows.filter(isToSort);
            return (
              <PhoneList>
                {list.map((r, i) => (
                  <PhoneItem key={r.code} next={i === 0}>
                    <Link to={`/floor/sort/${r.code}`}>
                      <b>
                        {r.urgent && 'Urgent: '}
                        {plural(r.orders.length, 'order', 'orders')}
                      </b>
                      <Glyph name="go" size={22} />
                      <span>
                        <span className="code">{r.code}</span>, {plural(r.units, 'piece', 'pieces')}, by {when(r.leavesAt ?? r.promisedAt)}
                      </span>
                    </Link>
                  </PhoneItem>
                ))}
                {list.length === 0 && (
                  <NoItem>Nothing stands at a wall. Rounds that are picked for several orders together come here.</NoItem>
                )}
              </PhoneList>
            );
          }}
        </Shown>
      </PhoneBody>
      <FloorKeys siteId={undefined} />
    </>
  );
}
