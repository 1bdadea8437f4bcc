import { useQuery } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useSite } from '../../api/queries';
import { kept } from '../../flow/kept';
import { plural, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, NoItem, PhoneBody, PhoneHead, PhoneItem, PhoneList } from '../../ui/phone/parts';
import { Shown } from '../../ui/states';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';

/** The lanes of the site, the one whose van leaves first at the top. A scanned parcel or lane opens its own. */
export function LoadList() {
  const navigate = useNavigate();
  const { site } = useSite();
  const lanes = useQuery({
    queryKey: key('lanes'),
    queryFn: () => kept('lanes', () => ask(api.GET('/api/dispatch/lanes'))),
  });
  const { data } = lanes;
  const here = useMemo(() => data?.filter((l) => l.siteId === site?.id) ?? [], [data, site?.id]);
  usePageScan(
    useCallback(
      (scanned) => {
        const code = scanned.trim().toUpperCase();
        const of = here.find((l) => l.lane === code || l.parcels.some((p) => p.code === code || p.order === code || p.tracking === code));
        if (of) void navigate(`/floor/load/${of.siteId}-${of.carrier}`);
        else void navigate(`/floor/look?code=${encodeURIComponent(code)}`);
      },
      [here, navigate],
    ),
  );
  const first = here.find((l) => l.parcels.length > 0);
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
      </PhoneHead>
      <Ask>Which van?</Ask>
      <PhoneBody className="mt-3">
        <Shown query={lanes}>
          {() => (
            <PhoneList>
              {here.map((l) => (
                <PhoneItem key={l.lane} next={l === first}>
                  <Link to={`/floor/load/${l.siteId}-${l.carrier}`}>
                    <b>{l.name}</b>
                    <Glyph name="go" size={22} />
                    <span>
                      {l.collectsAt && `${when(l.collectsAt)}, `}
                      {l.parcels.some((p) => p.loaded) && `${l.parcels.filter((p) => p.loaded).length} of `}
                      {plural(l.parcels.length, 'parcel', 'parcels')}
                      <span className="code block">{l.lane}</span>
                    </span>
                  </Link>
                </PhoneItem>
              ))}
              {here.length === 0 && <NoItem>No carrier fetches at this site. Give one a lane here in Setup, Carriers.</NoItem>}
            </PhoneList>
          )}
        </Shown>
      </PhoneBody>
      <FloorKeys siteId={site?.id} />
    </>
  );
}
