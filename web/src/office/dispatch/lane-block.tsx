import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button, TextAnchor } from '../../ui/button';
import { age, plural, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { BlockHead, Said } from '../../ui/page';
import { ProblemNote } from '../../ui/states';
import { ChooseCell, DenseTable, GlyphCell } from '../../ui/table';
import { weightText } from '../../ui/units';
import { TypedNumber } from './typed-number';
import { VanRail } from '../../ui/van-rail';

type Lane = Dto['LaneDto'];
type Parcel = Dto['WaitingParcelDto'];

/** The parcels of each van of a lane, the one at the door first. */
function vansOf(lane: Lane): { at: string | null; parcels: Parcel[] }[] {
  const vans = new Map<string | null, Parcel[]>([[lane.collectsAt, []]]);
  for (const p of lane.parcels) vans.set(p.leavesAt, [...(vans.get(p.leavesAt) ?? []), p]);
  return [...vans].map(([at, parcels]) => ({ at, parcels })).sort((a, b) => Date.parse(a.at ?? '') - Date.parse(b.at ?? ''));
}

const handWords = (loaded: boolean, n: number, lane: Lane) =>
  n === 0
    ? 'All of them stay'
    : `Hand ${plural(n, loaded ? 'loaded parcel' : 'parcel', loaded ? 'loaded parcels' : 'parcels')} to ${lane.name}`;

/** One carrier's lane: a rail for each van, and its parcels. What is loaded is handed over; before anything is, what is ticked. */
export function LaneBlock({ lane, first }: { lane: Lane; first: boolean }) {
  const me = useMe();
  const [chosen, setChosen] = useState<ReadonlyMap<string, boolean>>(new Map());
  const may = me.data?.rights.includes('dispatch') ?? false;
  const labelled = lane.parcels.filter((p) => p.state === 'labelled');
  const anyLoaded = labelled.some((p) => p.loaded);
  const goes = (p: Parcel) => chosen.get(p.code) ?? (anyLoaded ? p.loaded : p.held === null);
  const ready = labelled.filter(goes);
  const missed = lane.parcels.filter((p) => p.missed).length;
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
      <BlockHead className="items-center flex-wrap">
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
            {handWords(anyLoaded, ready.length, lane)} <Glyph name="go" size={13} />
          </Button>
        )}
      </BlockHead>
      <ProblemNote problem={handOver.error} />
      {vansOf(lane).map(({ at, parcels }) => (
        <VanRail key={at} at={at} far={at !== lane.collectsAt} parcels={parcels.map((p) => ({ ...p, labelled: p.state === 'labelled' }))} />
      ))}
      {lane.parcels.length > 0 && (
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
              <ParcelRow key={p.code} parcel={p} may={may} goes={goes(p)} onChoose={(on) => setChosen(new Map(chosen).set(p.code, on))} />
            ))}
          </tbody>
        </DenseTable>
      )}
    </section>
  );
}

function stateOf(p: Parcel): { glyph: 'blocked' | 'held' | 'full' | 'half' | 'go'; says: string } {
  if (p.loaded) return { glyph: 'go', says: 'on the van' };
  if (p.held !== null) return { glyph: 'held', says: `held: ${p.held}` };
  if (p.trouble) return { glyph: 'blocked', says: 'no label' };
  return p.state === 'labelled' ? { glyph: 'full', says: 'labelled' } : { glyph: 'half', says: 'label asked for' };
}

function ParcelRow({ parcel: p, may, goes, onChoose }: { parcel: Parcel; may: boolean; goes: boolean; onChoose: (on: boolean) => void }) {
  const { glyph, says } = stateOf(p);
  return (
    <tr>
      {may &&
        (p.state === 'labelled' && p.held === null ? (
          <ChooseCell says={`${p.code} goes with the van`} checked={goes} onChoose={onChoose} />
        ) : (
          <td />
        ))}
      <GlyphCell>
        <Glyph name={glyph} size={14} says={says} />
      </GlyphCell>
      <td className="code">
        <Link to={`/orders/${p.order}`}>{p.code}</Link>
      </td>
      <td>{p.customer}</td>
      <td className="mid">{p.service}</td>
      <td className="num">{p.weightG ? weightText(p.weightG) : ''}</td>
      <td className={p.trouble ? 'stamped' : 'code'}>
        {p.trouble ? `No label yet: ${p.trouble}` : (p.tracking ?? 'label asked for')}{' '}
        {may && p.tracking === p.code && <TypedNumber parcel={p.code} />}
      </td>
      <td className={p.missed ? 'num stamped' : 'num mid'}>
        {p.held !== null ? `held: ${p.held}` : p.missed ? `promised ${when(p.promisedAt)}` : p.since ? age(p.since) : ''}
      </td>
      <td className="num">
        {p.tracking && (
          <TextAnchor href={`/api/dispatch/parcels/${p.code}/label`} target="_blank" rel="noreferrer">
            Label
          </TextAnchor>
        )}
      </td>
    </tr>
  );
}
