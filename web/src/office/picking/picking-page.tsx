import { key } from '../../api/keys';
import { Link } from 'react-router';
import { api, ask } from '../../api/client';
import { age, plural, when } from '../../ui/format';
import { byDeparture } from '../../ui/by-departure';
import { DepartureRow } from '../../ui/departure-row';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { Page } from '../../ui/page';
import { DenseTable, GlyphCell } from '../../ui/table';
import { MoreRows, useLongList } from '../../ui/long-list';

const STATE_WORDS: Readonly<Record<string, string>> = {
  waiting: 'waits for a picker',
  picking: 'under way',
  'set-down': 'set down',
};

/** The rounds: who walks, how far they are, what was short. */
export function PickingPage() {
  const query = useLongList(key('rounds'), (query) => ask(api.GET('/api/rounds', { params: { query } })));
  return (
    <Page aria-label="Rounds">
      <h1 className="sr">Rounds</h1>
      <Shown query={query}>
        {({ rows: rounds }) =>
          rounds.length === 0 ? (
            <Empty title="No rounds">Send an order to picking from Orders; its round shows here and on the phones.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <GlyphCell />
                  <th>Round</th>
                  <th>For</th>
                  <th>Picker</th>
                  <th>State</th>
                  <th className="num">Stops</th>
                  <th className="num">Units</th>
                  <th className="num">Walk, m</th>
                  <th>Promised</th>
                  <th className="num">Age</th>
                  <th>Tote</th>
                  <th>Short</th>
                </tr>
              </thead>
              {byDeparture(rounds, ['round', 'rounds']).map((g) => (
                <tbody key={g.key}>
                  <DepartureRow group={g} columns={12} />
                  {g.list.map((r) => (
                    <tr key={r.code}>
                      <GlyphCell>
                        <Glyph name={r.shortStops > 0 ? 'blocked' : progressGlyph(r.stopsDone, r.stops)} size={14} says />
                      </GlyphCell>
                      <td className="code">{r.code}</td>
                      <td>
                        <Link to={`/orders/${r.order}`}>
                          <span className="code">{r.order}</span> {r.customer}
                        </Link>
                      </td>
                      <td>{r.picker ?? '–'}</td>
                      <td className="mid">{STATE_WORDS[r.state] ?? r.state}</td>
                      <td className="num">
                        {r.stopsDone} of {r.stops}
                      </td>
                      <td className="num">{r.units}</td>
                      <td className="num">{r.metres > 0 ? r.metres : null}</td>
                      <td>{when(r.promisedAt)}</td>
                      <td className="num mid">{age(r.createdAt)}</td>
                      <td className="code">{r.tote}</td>
                      <td className="stamped">{r.shortStops > 0 ? plural(r.shortStops, 'stop', 'stops') : ''}</td>
                    </tr>
                  ))}
                </tbody>
              ))}
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['round', 'rounds']} />
    </Page>
  );
}
