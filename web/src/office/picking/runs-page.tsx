import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { TextLink } from '../../ui/button';
import { when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { ListPage, useBeside } from '../../ui/list-page';
import { OpenRow } from '../../ui/open-row';
import { Empty, Shown } from '../../ui/states';
import { DenseTable, GlyphCell } from '../../ui/table';
import { PickingWords } from './picking-words';

/** The rules by which orders are sent to picking every working day. */
export const useDailyRuns = () => useQuery({ queryKey: key('daily-runs'), queryFn: () => ask(api.GET('/api/daily-runs')) });

/** What a rule sends, in a few words. */
const sends = (r: Dto['DailyRunDto']): string =>
  [
    r.vanAt ? `everything for the ${r.vanAt} van` : 'everything that leaves on the day',
    r.channel && `from ${r.channel}`,
    r.mostStops && `of ${r.mostStops === 1 ? 'one stop' : `up to ${r.mostStops} stops`}`,
    r.pooled && 'sorted at the wall',
  ]
    .filter(Boolean)
    .join(', ');

export function RunsPage() {
  const beside = useBeside();
  const { id: open } = useParams();
  const query = useDailyRuns();
  return (
    <ListPage title="Daily runs" width={480}>
      <PickingWords at="runs">
        <TextLink to="/picking/runs/new">New daily run</TextLink>
      </PickingWords>
      <Shown query={query}>
        {({ runs }) =>
          runs.length === 0 ? (
            <Empty title="No daily runs">
              A run sends to picking by itself what must catch a van, at the same time of every working day.
            </Empty>
          ) : (
            <DenseTable className="w-full">
              <thead>
                <tr>
                  <GlyphCell />
                  <th>At</th>
                  <th>Site</th>
                  <th>Sends</th>
                  {!beside && <th>In the name of</th>}
                  {!beside && <th>Last time</th>}
                </tr>
              </thead>
              <tbody>
                {runs.map((r) => (
                  <OpenRow key={r.id} to={`/picking/runs/${r.id}`} open={String(r.id) === open}>
                    <GlyphCell>{!r.active && <Glyph name="held" size={14} says />}</GlyphCell>
                    <td className="strong">{r.runsAt}</td>
                    <td>{r.site}</td>
                    <td>{sends(r)}</td>
                    {!beside && <td>{r.person}</td>}
                    {!beside && (
                      <td>
                        {r.lastAt && r.lastSays ? (
                          <>
                            {when(r.lastAt)}
                            <span className="note">{r.lastSays}</span>
                          </>
                        ) : (
                          <span className="soft">not yet</span>
                        )}
                      </td>
                    )}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
    </ListPage>
  );
}
