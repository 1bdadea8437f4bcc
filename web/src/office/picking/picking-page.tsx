import { useState } from 'react';
import { key } from '../../api/keys';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { TextButton } from '../../ui/button';
import { age, plural, when } from '../../ui/format';
import { byDeparture } from '../../ui/by-departure';
import { DepartureRow } from '../../ui/departure-row';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { ListPage, useBeside } from '../../ui/list-page';
import { OpenRow } from '../../ui/open-row';
import { PrintRounds } from './print-rounds';
import { stateOf } from './round-words';
import { DenseTable, GlyphCell } from '../../ui/table';
import { PickingWords } from './picking-words';
import { MoreRows, useLongList } from '../../ui/long-list';

type Round = Dto['RoundRowDto'];

/** The rounds: who walks, how far they are, what was short. */
export function PickingPage() {
  const mayRelease = useMe().data?.rights.includes('release') === true;
  const [prints, setPrints] = useState(false);
  const query = useLongList(key('rounds'), (query) => ask(api.GET('/api/rounds', { params: { query } })));
  return (
    <ListPage title="Rounds" width={590}>
      <PickingWords at="rounds">
        <TextButton type="button" onClick={() => setPrints(true)}>
          Print
        </TextButton>
      </PickingWords>
      <Shown query={query}>
        {({ rows: rounds }) =>
          rounds.length === 0 ? (
            <Empty title="No rounds">Send orders to picking from Release; their rounds show here and on the phones.</Empty>
          ) : (
            <Rounds rounds={rounds} mayRelease={mayRelease} />
          )
        }
      </Shown>
      {prints && <PrintRounds rounds={query.data?.rows ?? []} onClose={() => setPrints(false)} />}
      <MoreRows list={query} what={['round', 'rounds']} />
    </ListPage>
  );
}

/** The rounds by the van that each must catch; beside a sheet only what tells them apart. */
function Rounds({ rounds, mayRelease }: { rounds: readonly Round[]; mayRelease: boolean }) {
  const { code: open } = useParams();
  const beside = useBeside();
  const columns = beside ? 5 : 12 + (mayRelease ? 1 : 0);
  return (
    <DenseTable>
      <thead>
        <tr>
          <GlyphCell />
          <th>Round</th>
          <th>For</th>
          <th>Picker</th>
          {!beside && <th>State</th>}
          <th className="num">Stops</th>
          {!beside && (
            <>
              <th className="num">Units</th>
              <th className="num">Walk, m</th>
              <th>Promised</th>
              <th className="num">Age</th>
              <th>Tote</th>
              <th>Short</th>
              {mayRelease && (
                <th>
                  <span className="sr">Recall</span>
                </th>
              )}
            </>
          )}
        </tr>
      </thead>
      {byDeparture(rounds, ['round', 'rounds']).map((g) => (
        <tbody key={g.key}>
          <DepartureRow group={g} columns={columns} />
          {g.list.map((r) => (
            <OpenRow key={r.code} to={`/picking/${r.code}`} open={r.code === open}>
              <GlyphCell>
                <Glyph name={r.shortStops > 0 ? 'blocked' : progressGlyph(r.stopsDone, r.stops)} size={14} says />
              </GlyphCell>
              <td className="code">{r.code}</td>
              <td>
                <OrdersOf round={r} />
              </td>
              <td>{r.picker ?? (r.sentTo ? `sent to ${r.sentTo}` : '–')}</td>
              {!beside && <td className="mid">{stateOf(r)}</td>}
              <td className="num">
                {r.stopsDone} of {r.stops}
              </td>
              {!beside && (
                <>
                  <td className="num">{r.units}</td>
                  <td className="num">{r.metres > 0 ? r.metres : null}</td>
                  <td>{when(r.promisedAt)}</td>
                  <td className="num mid">{age(r.createdAt)}</td>
                  <td className="code">{r.orders.flatMap((o) => o.totes).join(' ')}</td>
                  <td className="stamped">{r.shortStops > 0 ? plural(r.shortStops, 'stop', 'stops') : ''}</td>
                  {mayRelease && <td>{r.state === 'waiting' && <Recall code={r.code} />}</td>}
                </>
              )}
            </OpenRow>
          ))}
        </tbody>
      ))}
    </DenseTable>
  );
}

/** Whom a round is for: each order by name while there are few of them. */
function OrdersOf({ round }: { round: Round }) {
  const [first, ...more] = round.orders;
  if (!first) return null;
  return (
    <>
      <Link to={`/orders/${first.code}`}>
        <span className="code">{first.code}</span> {first.customer}
      </Link>
      {more.length > 0 && (
        <span className="mid" title={more.map((o) => `${o.code} ${o.customer}`).join(', ')}>
          {' '}
          and {more.length} more
        </span>
      )}
    </>
  );
}

/** Takes a round back that nobody has begun. */
function Recall({ code }: { code: string }) {
  const recall = useAct({
    act: (_: void, once) => ask(api.POST('/api/rounds/{code}/recall', { params: { path: { code } }, headers: once })),
  });
  return (
    <TextButton type="button" aria-label={`Recall ${code}`} disabled={recall.isPending} onClick={() => recall.mutate()}>
      {recall.error ? recall.error.message : 'Recall'}
    </TextButton>
  );
}
