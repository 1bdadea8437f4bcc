import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { useRef } from 'react';
import { useParams } from 'react-router';
import { useAddress, withParam } from '../../../ui/address';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { ExportLinks } from '../../../ui/export-links';
import { whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Skeleton } from '../../../ui/states';
import { useVirtualRows } from '../../../ui/virtual-rows';
import { useWindows } from '../../../ui/windows';
import { ShelvesWords } from '../shelves-words';
import { kindWords, PLACE_KINDS } from './place-kinds';
import { ListPage, useBeside } from '../../../ui/list-page';
import { OpenRow } from '../../../ui/open-row';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { Select, Input } from '../../../ui/input';
import { TextLink } from '../../../ui/button';
import { FilterLine } from '../../../ui/page';
import { SkeletonLine } from '../../../ui/skeleton-line';

type Row = Dto['PlaceDto'];
const FILTERS = ['search', 'kind', 'site', 'zone', 'state', 'sort'] as const;
const STATES = [
  ['', 'every state'],
  ['used', 'with goods'],
  ['free', 'empty'],
  ['blocked', 'blocked'],
] as const;

function Rows({ list, open }: { list: ReturnType<typeof useWindows<Row>>; open: string | undefined }) {
  const beside = useBeside();
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualRows(box, list.total ?? 0, list.see);
  return (
    <div ref={box} className="flex-1 overflow-auto min-h-0">
      <DenseTable>
        <thead>
          <tr>
            <GlyphCell />
            <th>Code</th>
            <th>Kind</th>
            <th>Site</th>
            {!beside && <th>Zone</th>}
            <th>Picking</th>
            {!beside && <th className="num">Order</th>}
            <th className="num">Items there</th>
          </tr>
        </thead>
        <tbody>
          {rows.before > 0 && <tr style={{ height: rows.before }} aria-hidden />}
          {rows.indexes.map((index) => {
            const p = list.row(index);
            if (!p) {
              return (
                <tr key={`s${index}`} aria-hidden>
                  <td colSpan={open ? 6 : 8}>
                    <SkeletonLine width="60%" apart={0} />
                  </td>
                </tr>
              );
            }
            return (
              <OpenRow key={p.id} to={`/shelves/places/${p.code}${window.location.search}`} open={p.code === open}>
                <GlyphCell>
                  <Glyph name={p.blocked ? 'blocked' : p.items > 0 ? 'full' : 'empty'} size={12} says />
                </GlyphCell>
                <td className="code">{p.code}</td>
                <td>{kindWords(p.kind)}</td>
                <td className="mid">{p.site}</td>
                {!beside && <td className="mid">{p.zone}</td>}
                <td className="mid">{p.pickable ? 'open' : ''}</td>
                {!beside && (
                  <td className="num mid">
                    {p.walkOrder}
                    {p.fixedOrder && ', by hand'}
                  </td>
                )}
                <td className="num">{p.items || ''}</td>
              </OpenRow>
            );
          })}
          {rows.behind > 0 && <tr style={{ height: rows.behind }} aria-hidden />}
        </tbody>
      </DenseTable>
    </div>
  );
}

/** Every place of the sites, narrowed by kind, zone and state, with one open. */
export function PlacesPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const [params, change] = useAddress();
  const me = useMe();
  const filter = Object.fromEntries(FILTERS.flatMap((f) => (params.get(f) ? [[f, params.get(f) ?? '']] : []))) as Partial<
    Record<(typeof FILTERS)[number], string>
  >;
  const list = useWindows<Row>(['places', filter], (from, limit) =>
    ask(api.GET('/api/places', { params: { query: { ...filter, from: String(from), limit: String(limit) } } })),
  );
  const zones = useQuery({ queryKey: key('zones'), queryFn: () => ask(api.GET('/api/zones')), staleTime: 60_000 });
  const set = (key: string, value: string) => change((p) => withParam(p, key, value));
  const choice = (key: string, label: string, words: readonly (readonly [string, string])[]) => (
    <Select style={{ width: 'auto' }} aria-label={label} value={params.get(key) ?? ''} onChange={(e) => set(key, e.target.value)}>
      {words.map(([value, says]) => (
        <option key={value} value={value}>
          {says}
        </option>
      ))}
    </Select>
  );
  return (
    <ListPage title="Bins and places" width={520} className="flex flex-col">
      <ShelvesWords at="places">
        {me.data?.rights.includes('set-up') && (
          <span className="flex gap-5 items-baseline">
            {!beside && <ExportLinks list="places" query={filter} />}
            {!beside && <TextLink to="/shelves/zones">Zones</TextLink>}
            <TextLink to="/shelves/aisles">Build aisles</TextLink>
            <TextLink to="/shelves/places/new">New place</TextLink>
          </span>
        )}
      </ShelvesWords>
      <FilterLine>
        <span className="flex gap-2">
          {choice('kind', 'Kind of place', [['', 'every kind'], ...PLACE_KINDS.map((k) => [k, kindWords(k)] as const)])}
          {!beside && choice('zone', 'Zone', [['', 'every zone'], ...(zones.data ?? []).map((z) => [z.code, z.name] as const)])}
          {!beside && choice('state', 'State', STATES)}
          {!beside &&
            (me.data?.sites.length ?? 0) > 1 &&
            choice('site', 'Site', [['', 'every site'], ...(me.data?.sites ?? []).map((s) => [String(s.id), s.name] as const)])}
          {!beside &&
            choice('sort', 'Order of the list', [
              ['', 'walking order'],
              ['code', 'by code'],
            ])}
        </span>
        <span className="flex gap-3 items-baseline">
          <span className="note">{list.total !== undefined && `${whole(list.total)} places`}</span>
          <Input
            style={{ width: 160 }}
            type="search"
            aria-label="Code begins with"
            placeholder="Code begins with"
            defaultValue={params.get('search') ?? ''}
            onChange={(e) => set('search', e.target.value)}
          />
        </span>
      </FilterLine>
      {list.error ? (
        <ProblemNote problem={list.error} onRetry={list.refetch} />
      ) : list.total === undefined ? (
        <Skeleton rows={16} />
      ) : list.total === 0 ? (
        <Empty title="No place fits">Type less of the code, show every kind, or build aisles.</Empty>
      ) : (
        <Rows list={list} open={open} />
      )}
    </ListPage>
  );
}
