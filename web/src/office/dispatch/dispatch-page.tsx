import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { age, plural, when } from '../../ui/format';
import { weightText } from '../../ui/units';
import { Glyph } from '../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { BlockHead, Page, Said } from '../../ui/page';
import { Button, TextAnchor } from '../../ui/button';
import { ChooseCell, DenseTable, GlyphCell } from '../../ui/table';

type Lane = Dto['LaneDto'];

/** The van that it was promised to catch has gone without it. */
const isMissed = (p: Dto['WaitingParcelDto']) => Date.parse(p.promisedAt) < Date.now();

function LaneBlock({ lane, first }: { lane: Lane; first: boolean }) {
  const me = useMe();
  const [stays, setStays] = useState<ReadonlySet<string>>(new Set());
  const may = me.data?.rights.includes('dispatch') ?? false;
  const labelled = lane.parcels.filter((p) => p.state === 'labelled');
  const ready = labelled.filter((p) => !stays.has(p.code));
  const missed = lane.parcels.filter(isMissed).length;
  const takes = (code: string, on: boolean) => {
    const next = new Set(stays);
    if (on) next.delete(code);
    else next.add(code);
    setStays(next);
  };
  const handOver = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/dispatch/hand-overs', {
          body: { carrier: lane.carrier, parcels: ready.map((p) => p.code) },
          headers: once,
        }),
      ),
  });
  return (
    <section className="mb-6" aria-label={lane.name}>
      <BlockHead className="items-center">
        <h2>{lane.name}</h2>
        <span className="note" style={{ marginLeft: 0 }}>
          {lane.collectsAt ? `van at ${when(lane.collectsAt)}, ` : 'no departure is set, '}lane <span className="code">{lane.lane}</span>
        </span>
        {missed > 0 && <span className="stamped">{plural(missed, 'parcel has', 'parcels have')} missed the van</span>}
        <span className="ml-auto" />
        {handOver.data && (
          <Said>
            <Glyph name="full" /> {plural(handOver.data.parcels, 'parcel', 'parcels')} gone, list{' '}
            <TextAnchor
              className="code"
              href={`/api/dispatch/hand-overs/${handOver.data.code}/list`}
              target="_blank"
              rel="noreferrer"
              data-print
            >
              {handOver.data.code}
            </TextAnchor>
          </Said>
        )}
        {labelled.length > 0 && may && (
          <Button type="button" next={first} disabled={handOver.isPending || ready.length === 0} onClick={() => handOver.mutate()}>
            {ready.length === 0 ? 'All of them stay' : `Hand ${plural(ready.length, 'parcel', 'parcels')} to ${lane.name}`}{' '}
            <Glyph name="go" size={13} />
          </Button>
        )}
      </BlockHead>
      <ProblemNote problem={handOver.error} />
      {lane.parcels.length === 0 ? (
        <p className="note py-3">No parcels wait for this van</p>
      ) : (
        <DenseTable>
          <thead>
            <tr>
              {may && <td />}
              <GlyphCell />
              <th>Parcel</th>
              <th>Customer</th>
              <th>Service</th>
              <th className="num">Weight</th>
              <th>Tracking</th>
              <th className="num">Waits</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {lane.parcels.map((p) => (
              <tr key={p.code}>
                {may &&
                  (p.state === 'labelled' ? (
                    <ChooseCell says={`${p.code} goes with the van`} checked={!stays.has(p.code)} onChoose={(on) => takes(p.code, on)} />
                  ) : (
                    <td />
                  ))}
                <GlyphCell>
                  <Glyph
                    name={p.trouble ? 'blocked' : p.state === 'labelled' ? 'full' : 'half'}
                    size={14}
                    says={p.state === 'labelled' ? 'labelled' : 'label asked for'}
                  />
                </GlyphCell>
                <td className="code">
                  <Link to={`/orders/${p.order}`}>{p.code}</Link>
                </td>
                <td>{p.customer}</td>
                <td className="mid">{p.service}</td>
                <td className="num">{p.weightG ? weightText(p.weightG) : ''}</td>
                <td className={p.trouble ? 'stamped' : 'code'}>
                  {p.trouble ? `No label yet: ${p.trouble}` : (p.tracking ?? 'label asked for')}
                </td>
                <td className={isMissed(p) ? 'num stamped' : 'num mid'}>
                  {isMissed(p) ? `promised ${when(p.promisedAt)}` : p.since ? age(p.since) : ''}
                </td>
                <td className="num">
                  {p.tracking && (
                    <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer">
                      Label
                    </TextAnchor>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </DenseTable>
      )}
    </section>
  );
}

/** The dispatch lanes: what waits for which van, and the hand-over. */
export function DispatchPage() {
  const query = useQuery({ queryKey: key('lanes'), queryFn: () => ask(api.GET('/api/dispatch/lanes')) });
  return (
    <Page aria-label="Dispatch lanes">
      <h1 className="sr">Dispatch lanes</h1>
      <Shown query={query}>
        {(lanes) => {
          const first = lanes.find((l) => l.parcels.some((p) => p.state === 'labelled'))?.lane;
          return lanes.length === 0 ? (
            <Empty title="No carriers yet">Carriers come with the set-up of a site.</Empty>
          ) : (
            <>
              {lanes.map((l) => (
                <LaneBlock key={l.lane} lane={l} first={l.lane === first} />
              ))}
            </>
          );
        }}
      </Shown>
    </Page>
  );
}
