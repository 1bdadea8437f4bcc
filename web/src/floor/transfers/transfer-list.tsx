import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSite } from '../../api/queries';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, NoItem, PhoneBody, PhoneHead, PhoneItem, PhoneList } from '../../ui/phone/parts';
import { Shown } from '../../ui/states';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { useOpenTransfers } from './open-transfers';
import { transferPath } from './transfer-path';

/** What goes to other sites and what comes from them; the code on its paper opens it. */
export function TransferList() {
  const { site } = useSite();
  const navigate = useNavigate();
  const open = useOpenTransfers(site?.id);
  const list = open.data;
  usePageScan(
    useCallback(
      (code) => {
        void navigate(transferPath(list, code.trim().toUpperCase()));
      },
      [navigate, list],
    ),
  );
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
      </PhoneHead>
      <Ask>Scan its paper, or choose</Ask>
      <PhoneBody className="mt-3">
        <Shown query={open}>
          {(transfers) => (
            <PhoneList>
              {transfers.map((t, i) => (
                <PhoneItem key={t.code} next={i === 0}>
                  <Link to={`/floor/${t.kind}/${t.code}`}>
                    <b>{t.kind === 'gather' ? `To ${t.site}` : `From ${t.site}`}</b>
                    <Glyph name="go" size={22} />
                    <span>
                      <span className="code">{t.code}</span>, {plural(t.lines, 'line', 'lines')}{' '}
                      {t.kind === 'gather' ? 'to gather' : 'on the road'}
                    </span>
                  </Link>
                </PhoneItem>
              ))}
              {transfers.length === 0 && <NoItem>Nothing goes to other sites or comes from them. The office asks for it.</NoItem>}
            </PhoneList>
          )}
        </Shown>
      </PhoneBody>
      <FloorKeys siteId={undefined} />
    </>
  );
}
