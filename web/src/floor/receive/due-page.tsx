import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import type { Feedback, How } from '@vectrum/core/scan';
import { useCallback, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, ask, at, type Dto } from '../../api/client';
import { useMe, useSite } from '../../api/queries';
import { FeedbackBand } from '../../flow/band';
import { kept } from '../../flow/kept';
import { soundBand } from '../../flow/sound';
import { age, dayWord, plural } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { ProblemNote, Shown } from '../../ui/states';
import { SiteName } from '../device-switches';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { NoItem, PhoneHead, Ask, PhoneBody, PhoneList, Key } from '../../ui/phone/parts';

type Due = Dto['DueDto'];
/** As many as the list holds at once. */
const SHOWN = 200;

function progress(d: Due): string {
  if (d.linesIn > 0 || d.since) return `${d.linesIn} of ${d.lines} lines in${d.since ? `, here for ${age(d.since)}` : ''}`;
  if (d.late && d.expectedOn) return `late, due ${dayWord(d.expectedOn)}`;
  return `${dayWord(d.expectedOn)}${d.pallets > 0 ? `, ${plural(d.pallets, 'pallet', 'pallets')} announced` : ''}`;
}

/** What is due, at the door and overdue first. Any code leads on: an order's paper, a pallet, or goods that are due. */
export function DuePage() {
  const navigate = useNavigate();
  const me = useMe();
  const { site } = useSite();
  const siteId = site?.id;
  const [band, setBand] = useState<Feedback | null>(null);
  const [choices, setChoices] = useState<{ code: string; how: How; list: Due[] } | null>(null);
  const due = useQuery({
    queryKey: key('receive-due', siteId),
    queryFn: () => kept(`receive-due-${siteId ?? ''}`, () => ask(api.GET('/api/floor/receive', at(site)))),
    enabled: site !== undefined,
  });
  const find = useAct({
    act: ({ code }: { code: string; how: How }) => ask(api.GET('/api/floor/due', { params: { query: { code } } })),
    onDone: ({ opens, choices: several }, scanned) => {
      if (opens)
        return void navigate(`/floor/receive/${opens}`, { state: opens === scanned.code.trim().toUpperCase() ? null : { scanned } });
      setChoices(several.length > 0 ? { ...scanned, list: several } : null);
      if (several.length > 0) return;
      soundBand('unknown');
      setBand({ band: 'unknown', title: scanned.code, detail: 'No order, pallet, supplier or goods that are due' });
    },
  });
  const { mutate } = find;
  usePageScan(
    useCallback(
      (code: string, how: How) => {
        setBand(null);
        mutate({ code, how });
      },
      [mutate],
    ),
  );
  const unordered = useAct({
    act: (_: void, once) => ask(api.POST('/api/floor/arrivals', { body: { siteId: siteId ?? 0 }, headers: once })),
    onDone: ({ code }) => void navigate(`/floor/receive/${code}`),
  });
  return (
    <>
      <FeedbackBand feedback={band} />
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span>
          <SiteName />
        </span>
        <span>{due.data ? `${due.data.length} due` : ''}</span>
      </PhoneHead>
      <Ask>{choices ? 'Which of these?' : 'Scan paper, pallet or goods'}</Ask>
      <PhoneBody className="mt-3">
        <ProblemNote problem={find.error ?? unordered.error} />
        <Shown query={due}>
          {(all) => (
            <PhoneList>
              {(choices?.list ?? all).map((d) => (
                <li key={d.code}>
                  <Link
                    to={`/floor/receive/${d.code}`}
                    state={choices?.how === 'scanned' ? { scanned: { code: choices.code, how: choices.how } } : null}
                  >
                    <b>{d.supplier}</b>
                    <Glyph name={d.late && d.linesIn === 0 ? 'blocked' : progressGlyph(d.linesIn, d.lines)} size={24} says />
                    <span>
                      <span className="code">{d.code}</span>, {progress(d)}
                      {d.door && (
                        <>
                          , at <span className="code">{d.door}</span>
                        </>
                      )}
                    </span>
                  </Link>
                </li>
              ))}
              {all.length >= SHOWN && !choices && <NoItem>More are due. Type a word of the supplier or the goods to find them.</NoItem>}
              {all.length === 0 && <NoItem>Nothing is due. Orders show here once they are placed.</NoItem>}
            </PhoneList>
          )}
        </Shown>
      </PhoneBody>
      <FloorKeys siteId={siteId} words>
        {me.data?.rights.includes('take-in') && (
          <Key type="button" disabled={unordered.isPending} onClick={() => unordered.mutate()}>
            No order
          </Key>
        )}
      </FloorKeys>
    </>
  );
}
