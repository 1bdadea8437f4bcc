import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { Link, Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { Words } from '../../ui/field';
import { whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { ShelvesWords } from './shelves-words';

type Row = Dto['ItemRowDto'];
type Show = 'all' | 'short' | 'incomplete';

const ROW = 28;
const shown: Record<Show, (r: Row) => boolean> = {
  all: () => true,
  short: (r) => r.available <= 0,
  incomplete: (r) => r.lacks.length > 0,
};

function ItemTable({ items, open }: { items: Row[]; open: string | undefined }) {
  const navigate = useNavigate();
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser keeps its own state; nothing here is memoised on it
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 20,
  });
  const virtual = rows.getVirtualItems();
  const first = virtual[0];
  const last = virtual.at(-1);
  return (
    <div ref={box} className="flex-1 overflow-auto min-h-0">
      <table className="dense">
        <thead>
          <tr>
            <th>Item</th>
            <th>SKU</th>
            <th className="num">On hand</th>
            <th className="num">Reserved</th>
            <th className="num">Available</th>
            <th className="num">On order</th>
            {!open && <th>Lacks</th>}
          </tr>
        </thead>
        <tbody>
          {first && first.start > 0 && <tr style={{ height: first.start }} aria-hidden />}
          {virtual.map((v) => {
            const r = items[v.index];
            if (!r) return null;
            const go = () => void navigate(`/shelves/items/${r.sku}${window.location.search}`);
            return (
              <tr
                key={r.sku}
                data-open
                tabIndex={0}
                aria-selected={r.sku === open}
                onClick={go}
                onKeyDown={(e) => e.key === 'Enter' && go()}
              >
                <td className="max-w-[230px] overflow-hidden text-ellipsis">{r.name}</td>
                <td className="code">{r.sku}</td>
                <td className="num">{whole(r.onHand)}</td>
                <td className="num mid">{r.reserved === 0 ? '' : whole(r.reserved)}</td>
                <td className={`num ${r.available <= 0 ? 'stamped' : 'strong'}`}>{whole(r.available)}</td>
                <td className="num mid">{r.incoming === 0 ? '' : whole(r.incoming)}</td>
                {!open && (
                  <td className="mid">
                    {r.lacks.length > 0 && <Glyph name="held" size={12} />} {r.lacks.join(', ')}
                  </td>
                )}
              </tr>
            );
          })}
          {last && <tr style={{ height: rows.getTotalSize() - last.end }} aria-hidden />}
        </tbody>
      </table>
    </div>
  );
}

/** The catalogue with its stock: a dense list, the open item beside it. */
export function ItemsPage() {
  const { sku: open } = useParams();
  const [params, setParams] = useSearchParams();
  const me = useMe();
  const search = params.get('search') ?? '';
  const show = (params.get('show') ?? 'all') as Show;
  const query = useQuery({
    queryKey: ['items', search],
    queryFn: () => ask(api.GET('/api/items', { params: { query: { search } } })),
    placeholderData: (was) => was,
  });
  const set = (key: string, value: string) =>
    setParams(
      (p) => {
        if (value && value !== 'all') p.set(key, value);
        else p.delete(key);
        return p;
      },
      { replace: true },
    );
  const all = query.data ?? [];
  return (
    <div className="under-2" style={{ ['--list' as string]: open ? '640px' : '100%' }}>
      <section className="list flex flex-col" aria-label="Items">
        <ShelvesWords at="items">
          {me.data?.rights.includes('items') && (
            <Link to="/shelves/items/new" className="act-link">
              New item
            </Link>
          )}
        </ShelvesWords>
        <div className="filter">
          <Words<Show>
            label="Show"
            value={show}
            onChange={(v) => set('show', v)}
            words={[
              { value: 'all', says: 'All', count: all.length },
              { value: 'short', says: 'None free', count: all.filter(shown.short).length },
              { value: 'incomplete', says: 'Incomplete', count: all.filter(shown.incomplete).length },
            ]}
          />
          <input
            className="input"
            style={{ width: 200 }}
            type="search"
            aria-label="Narrow the list"
            placeholder="Narrow the list"
            defaultValue={search}
            onChange={(e) => set('search', e.target.value)}
          />
        </div>
        <Shown query={query} rows={16}>
          {(items) => {
            const list = items.filter(shown[show]);
            return list.length === 0 ? (
              <Empty title="Nothing fits">Type less of the name, or show all.</Empty>
            ) : (
              <ItemTable items={list} open={open} />
            );
          }}
        </Shown>
      </section>
      <Outlet />
    </div>
  );
}
