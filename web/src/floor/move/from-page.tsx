import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSite } from '../../api/queries';
import { Ask, PhoneHead, Say } from '../../ui/phone/parts';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';

/** Where goods are to be taken from, be it a bin, dock, cart or pallet. */
export function FromPage() {
  const navigate = useNavigate();
  const { site } = useSite();
  usePageScan(useCallback((code) => void navigate(`/floor/move/${encodeURIComponent(code.trim().toUpperCase())}`), [navigate]));
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
      </PhoneHead>
      <Ask>Scan where the goods lie</Ask>
      <Say className="mt-3 text-[18px]">
        A bin, a dock or a cart. Then scan the goods and where they go; or only where they go, for all that lies there.
      </Say>
      <div style={{ marginTop: 'auto' }} />
      <FloorKeys siteId={site?.id} />
    </>
  );
}
