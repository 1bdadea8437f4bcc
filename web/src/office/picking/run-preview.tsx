import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { plural, when } from '../../ui/format';
import { BlockHead } from '../../ui/page';
import { Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';

/** What a daily run would send if it were due now, and what came of it last. */
export function RunPreview({ run }: { run: Dto['DailyRunDto'] }) {
  const query = useQuery({
    queryKey: key('daily-run-preview', run.id, run.version),
    queryFn: () => ask(api.GET('/api/daily-runs/{id}/preview', { params: { path: { id: run.id } } })),
  });
  return (
    <section aria-label="What it would send now">
      <BlockHead>
        <h2>What it would send now</h2>
        <span className="note">
          In the name of {run.person}.{run.lastAt && run.lastSays ? ` ${when(run.lastAt)}: ${run.lastSays}.` : ' It has not run yet.'}
        </span>
      </BlockHead>
      <Shown query={query}>
        {({ rounds, left }) => (
          <>
            {rounds.length === 0 ? (
              <p className="mid">Nothing: no order that must go by then is ready to be picked.</p>
            ) : (
              <LinesTable>
                <thead>
                  <tr>
                    <th>Round</th>
                    <th>Orders</th>
                    <th className="num">Stops</th>
                    <th className="num">Units</th>
                    <th className="num">Walk, m</th>
                  </tr>
                </thead>
                <tbody>
                  {rounds.map((r, i) => (
                    <tr key={r.orders.join()}>
                      <td>{i + 1}</td>
                      <td className="code">
                        {r.orders.map((code) => (
                          <span key={code}>
                            <Link to={`/orders/${code}`}>{code}</Link>{' '}
                          </span>
                        ))}
                      </td>
                      <td className="num">{r.stops}</td>
                      <td className="num">{r.units}</td>
                      <td className="num">{r.metres > 0 ? r.metres : ''}</td>
                    </tr>
                  ))}
                </tbody>
              </LinesTable>
            )}
            {left.length > 0 && (
              <>
                <p className="stamped mt-3">{plural(left.length, 'order is', 'orders are')} left</p>
                <ul>
                  {left.map((l) => (
                    <li key={l.order} className="border-b border-rule py-1">
                      <Link className="code" to={`/orders/${l.order}`}>
                        {l.order}
                      </Link>{' '}
                      {l.customer}: {l.why}
                    </li>
                  ))}
                </ul>
              </>
            )}
          </>
        )}
      </Shown>
    </section>
  );
}
