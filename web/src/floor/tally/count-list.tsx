import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSite } from '../../api/queries';
import { useTask } from '../../flow/tasks';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, PhoneBody, PhoneHead, PhoneItem, PhoneList } from '../../ui/phone/parts';
import { Shown } from '../../ui/states';
import { CountPage } from '../count-page';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { useOpenCounts } from './open-counts';

/** What there is to count: counts that are open, and bins that somebody has reported. Where there are only those, they show at once. */
export function CountList() {
  const { site } = useSite();
  const open = useOpenCounts(site?.id);
  if (open.data?.length === 0) return <CountPage />;
  return <Chosen siteId={site?.id} open={open} />;
}

function Chosen({ siteId, open }: { siteId: number | undefined; open: ReturnType<typeof useOpenCounts> }) {
  const navigate = useNavigate();
  const spots = useTask('count', siteId);
  const reported = spots.data?.task.spots.length ?? 0;
  usePageScan(useCallback((code) => void navigate(`/floor/tally/${code.trim().toUpperCase()}`), [navigate]));
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
      </PhoneHead>
      <Ask>Which count?</Ask>
      <PhoneBody className="mt-3">
        <Shown query={open}>
          {(counts) => (
            <PhoneList>
              {counts.map((c, i) => (
                <PhoneItem key={c.code} next={i === 0}>
                  <Link to={`/floor/tally/${c.code}`}>
                    <b>{c.title}</b>
                    <Glyph name="go" size={22} />
                    <span>
                      <span className="code">{c.code}</span>, {plural(c.bins, 'bin', 'bins')} for you
                    </span>
                  </Link>
                </PhoneItem>
              ))}
              {reported > 0 && (
                <PhoneItem>
                  <Link to="/floor/count/reported">
                    <b>Reported bins</b>
                    <Glyph name="go" size={22} />
                    <span>{plural(reported, 'bin', 'bins')} in which somebody has found too few</span>
                  </Link>
                </PhoneItem>
              )}
            </PhoneList>
          )}
        </Shown>
      </PhoneBody>
      <FloorKeys siteId={undefined} />
    </>
  );
}
