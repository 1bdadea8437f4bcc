import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { age, plural, when } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { Acts } from '../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { GlyphCell, LinesTable } from '../../ui/table';
import { PaperResults } from './paper-results';
import { StopPicker } from './stop-picker';
import { stateOf } from './round-words';

type Round = Dto['RoundSheetDto'];

/** One round: who walks it, its orders with their totes, how far each stop is; its paper list, and the results of it. */
export function RoundSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('round', code),
    queryFn: () => ask(api.GET('/api/rounds/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/picking">
      {(r) => (
        <Sheet
          address={`picking/${r.code}`}
          title={r.orders.length === 1 ? (r.orders[0]?.customer ?? r.code) : plural(r.orders.length, 'order', 'orders')}
          about={r.pooled ? `${stateOf(r)}, picked together and sorted at a wall` : stateOf(r)}
          code={r.code}
          back="/picking"
          print={{ href: `/api/rounds-papers?rounds=${r.code}&papers=lists`, says: 'Paper list' }}
        >
          <Waybill
            cells={[
              {
                cap: 'Walked by',
                value: r.picker ?? (r.sentTo ? `sent to ${r.sentTo}` : 'nobody yet'),
                note: r.begunAt ? `begun ${age(r.begunAt)} ago` : `waits since ${age(r.createdAt)}`,
              },
              {
                cap: 'Stops',
                value: `${r.stops.filter(isDone).length} of ${r.stops.length}`,
                note: r.metres > 0 ? `${r.metres} m to go` : '',
              },
              { cap: 'Promised', value: when(r.promisedAt), note: r.leavesAt ? `van ${when(r.leavesAt)}` : '' },
            ]}
          />
          <Orders round={r} />
          <Stops round={r} />
          <Results round={r} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

const isDone = (s: Round['stops'][number]) => s.picked + s.short >= s.units;

function Orders({ round }: { round: Round }) {
  return (
    <LinesTable aria-label="Orders of the round">
      <thead>
        <tr>
          <th>Order</th>
          <th>Customer</th>
          <th>{round.cart ? `Totes, on ${round.cart}` : 'Totes'}</th>
        </tr>
      </thead>
      <tbody>
        {round.orders.map((o) => (
          <tr key={o.id}>
            <td className="code">
              <Link to={`/orders/${o.code}`}>{o.code}</Link>
            </td>
            <td>
              {o.customer}
              {o.note && <div className="mid">{o.note}</div>}
            </td>
            <td className="code">{[...o.totes, ...(round.pooled ? (round.holders[0]?.totes ?? []) : [])].join(' ') || '–'}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

function Stops({ round }: { round: Round }) {
  const several = round.orders.length > 1 && !round.pooled;
  return (
    <LinesTable aria-label="Stops in the order of the walk">
      <thead>
        <tr>
          <GlyphCell />
          <th>Bin</th>
          <th>Goods</th>
          {several && <th className="max-sm:hidden">Order</th>}
          <th>Goes there</th>
          <th className="num">Wanted</th>
          <th className="num">Taken</th>
        </tr>
      </thead>
      <tbody>
        {round.stops.map((s) => (
          <tr key={s.id}>
            <GlyphCell>
              <Glyph name={s.short > 0 ? 'blocked' : progressGlyph(s.picked, s.units)} size={14} says />
            </GlyphCell>
            <td className="code">{s.place}</td>
            <td>
              {s.item}
              <div className="mid">
                <span className="code">{s.sku}</span>
                {s.lot && `, ${s.lot}`}
              </div>
            </td>
            {several && <td className="code max-sm:hidden">{s.order}</td>}
            <td>
              <StopPicker round={round} stop={s} />
            </td>
            <td className="num">{s.wanted}</td>
            <td className="num">
              {s.picked}
              {s.short > 0 && <span className="stamped">, {s.short} not there</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

/** What can be done with it: recalled while it waits, or entered from its paper list by whoever may pick. */
function Results({ round }: { round: Round }) {
  const rights = useMe().data?.rights ?? [];
  const [isOpen, setOpen] = useState(false);
  const recall = useAct({
    act: (_: void, once) => ask(api.POST('/api/rounds/{code}/recall', { params: { path: { code: round.code } }, headers: once })),
  });
  const isWalkable = round.state === 'waiting' || round.state === 'picking';
  if (!isWalkable) return null;
  if (isOpen) return <PaperResults round={round} onClose={() => setOpen(false)} />;
  return (
    <>
      {recall.error && <ProblemNote problem={recall.error} />}
      <Acts>
        {rights.includes('pick') && (
          <Button type="button" onClick={() => setOpen(true)}>
            Enter a paper list
          </Button>
        )}
        {round.state === 'waiting' && rights.includes('release') && (
          <Button type="button" disabled={recall.isPending} onClick={() => recall.mutate()}>
            Recall the round
          </Button>
        )}
      </Acts>
    </>
  );
}
