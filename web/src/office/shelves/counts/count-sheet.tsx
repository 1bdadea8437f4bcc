import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button, ButtonLink, TextButton } from '../../../ui/button';
import { age, plural, when } from '../../../ui/format';
import { Glyph, progressGlyph } from '../../../ui/glyph';
import { Input } from '../../../ui/input';
import { Acts, BlockHead } from '../../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { GlyphCell, LinesTable } from '../../../ui/table';
import { CountCodes } from './count-codes';
import { CountShares } from './count-shares';
import { countState } from './count-words';

type Count = Dto['CountDto'];

/** One count: its bins, who counts which, how far they are, and what can be done with it. */
export function CountSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('count', code),
    queryFn: () => ask(api.GET('/api/counts/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/shelves/counts">
      {(c) => (
        <Sheet address={`shelves/counts/${c.code}`} title={c.title} about={countState(c.state)} code={c.code} back="/shelves/counts">
          <Waybill
            cells={[
              {
                cap: 'Bins',
                value: `${c.binsDone} of ${c.bins}`,
                note: c.wholeBins ? 'with all that lies in them' : 'what the list names',
              },
              { cap: 'Lines', value: c.lines, note: c.state === 'review' ? `${c.toDecide} to decide` : '' },
              {
                cap: 'Drawn up',
                value: when(c.madeAt),
                note: c.madeBy ?? '',
              },
              {
                cap: 'Counted',
                value: c.blind ? 'blind' : 'with the books shown',
                note: c.scanEach ? 'every piece scanned' : 'by scan or number',
              },
            ]}
          />
          <CountCodes count={c} />
          <CountShares count={c} />
          <Bins count={c} />
          <CountActs key={c.state} count={c} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

/** What can be done with it, by where it stands. */
function CountActs({ count: c }: { count: Count }) {
  const rights = useMe().data?.rights ?? [];
  const [dropping, setDropping] = useState(false);
  const [reason, setReason] = useState('');
  const params = { path: { code: c.code } };
  const open = useAct({
    act: (_: void, once) => ask(api.POST('/api/counts/{code}/open', { params, headers: { ...once, ...ifMatch(c.version) } })),
  });
  const close = useAct({
    act: (leaveOut: boolean, once) =>
      ask(api.POST('/api/counts/{code}/close', { params, body: { leaveOut }, headers: { ...once, ...ifMatch(c.version) } })),
  });
  const drop = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/counts/{code}/drop', { params, body: { reason }, headers: { ...once, ...ifMatch(c.version) } })),
  });
  const mayDecide = rights.includes('settle-counts');
  const isUnderWay = c.state === 'drawn-up' || c.state === 'open' || c.state === 'review';
  const left = c.bins - c.binsDone;
  return (
    <>
      <Acts>
        {mayDecide && c.state === 'drawn-up' && (
          <Button type="button" next disabled={open.isPending} onClick={() => open.mutate()}>
            Open it to phones
          </Button>
        )}
        {mayDecide && c.state === 'open' && (
          <Button type="button" next={left === 0} disabled={close.isPending} onClick={() => close.mutate(left > 0)}>
            {left === 0 ? 'Counting is over' : `Counting is over, without ${plural(left, 'bin', 'bins')}`}
          </Button>
        )}
        {mayDecide && c.state !== 'drawn-up' && c.state !== 'dropped' && (
          <ButtonLink to={`/shelves/counts/${c.code}/review`} next={c.state === 'review'}>
            {c.state === 'review' ? 'Decide' : 'What was found'} <Glyph name="go" size={13} />
          </ButtonLink>
        )}
        {rights.includes('count') && c.state === 'open' && <ButtonLink to={`/floor/tally/${c.code}`}>Count on the phone</ButtonLink>}
        {mayDecide && isUnderWay && !dropping && (
          <TextButton type="button" onClick={() => setDropping(true)}>
            Let it go
          </TextButton>
        )}
        {dropping && (
          <>
            <Input autoFocus aria-label="Why it is let go" placeholder="why" value={reason} onChange={(e) => setReason(e.target.value)} />
            <Button type="button" disabled={drop.isPending} onClick={() => drop.mutate()}>
              Let it go, nothing is booked
            </Button>
          </>
        )}
      </Acts>
      <ProblemNote problem={open.error ?? close.error ?? drop.error} />
    </>
  );
}

function Bins({ count: c }: { count: Count }) {
  const mayDecide = useMe().data?.rights.includes('settle-counts') ?? false;
  const leave = useAct({
    act: (placeId: number, once) =>
      ask(
        api.DELETE('/api/counts/{code}/bins/{placeId}', {
          params: { path: { code: c.code, placeId } },
          headers: { ...once, ...ifMatch(c.version) },
        }),
      ),
  });
  const isEarly = mayDecide && (c.state === 'drawn-up' || c.state === 'open');
  return (
    <>
      <BlockHead>
        <h2>Bins</h2>
        {c.openedAt && <span className="note">open since {age(c.openedAt)}</span>}
      </BlockHead>
      <ProblemNote problem={leave.error} />
      <LinesTable aria-label="Bins of the count">
        <thead>
          <tr>
            <GlyphCell />
            <th>Bin</th>
            <th>Where</th>
            <th>Who</th>
            <th className="num">Lines</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {c.binRows.map((b) => (
            <tr key={b.placeId}>
              <GlyphCell>
                <Glyph name={b.state === 'counted' ? 'full' : progressGlyph(b.linesDone, b.lines || 1)} size={14} says />
              </GlyphCell>
              <td className="code">{b.code}</td>
              <td className="mid">{b.area}</td>
              <td>
                {b.begunBy ?? b.person ?? <span className="mid">whoever comes</span>}
                {b.device && <span className="note">{b.device}</span>}
              </td>
              <td className="num">
                {b.lines === 0 ? (
                  <span className="mid">{b.state === 'counted' ? 'empty' : 'none listed'}</span>
                ) : (
                  `${b.linesDone} of ${b.lines}`
                )}
              </td>
              <td className="num">
                {isEarly && b.state === 'open' && c.bins > 1 && (
                  <TextButton
                    type="button"
                    aria-label={`Leave out ${b.code}`}
                    disabled={leave.isPending}
                    onClick={() => leave.mutate(b.placeId)}
                  >
                    Leave out
                  </TextButton>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
    </>
  );
}
