import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { Link, Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { Field } from '../../ui/field';
import { whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet, Waybill } from '../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { ShelvesWords } from './shelves-words';

const KINDS = [
  'pick-face',
  'reserve',
  'dock',
  'inspection',
  'packing-table',
  'dispatch-lane',
  'quarantine',
  'counter',
  'tote',
  'cart',
  'pallet',
] as const;
const words = (kind: string) => kind.replace('-', ' ');

/** Every place of the sites, with one open. */
export function PlacesPage() {
  const { code: open } = useParams();
  const [params, setParams] = useSearchParams();
  const navigate = useNavigate();
  const me = useMe();
  const search = params.get('search') ?? '';
  const kind = params.get('kind') ?? '';
  const query = useQuery({
    queryKey: ['places', search, kind],
    queryFn: () => ask(api.GET('/api/places', { params: { query: { search, kind } } })),
    placeholderData: (was) => was,
  });
  const set = (key: string, value: string) =>
    setParams(
      (p) => {
        if (value) p.set(key, value);
        else p.delete(key);
        return p;
      },
      { replace: true },
    );
  return (
    <div className="under-2" style={{ ['--list' as string]: open ? '520px' : '100%' }}>
      <section className="list" aria-label="Bins and places">
        <ShelvesWords at="places">
          {me.data?.rights.includes('set-up') && (
            <Link to="/shelves/places/new" className="act-link">
              New place
            </Link>
          )}
        </ShelvesWords>
        <div className="filter">
          <select
            className="input"
            style={{ width: 180 }}
            aria-label="Kind of place"
            value={kind}
            onChange={(e) => set('kind', e.target.value)}
          >
            <option value="">every kind</option>
            {KINDS.map((k) => (
              <option key={k} value={k}>
                {words(k)}
              </option>
            ))}
          </select>
          <input
            className="input"
            style={{ width: 200 }}
            type="search"
            aria-label="Code begins with"
            placeholder="Code begins with"
            defaultValue={search}
            onChange={(e) => set('search', e.target.value)}
          />
        </div>
        <Shown query={query} rows={16}>
          {(list) =>
            list.length === 0 ? (
              <Empty title="No place fits">Type less of the code, or show every kind.</Empty>
            ) : (
              <table className="dense">
                <thead>
                  <tr>
                    <th className="gl" />
                    <th>Code</th>
                    <th>Kind</th>
                    <th>Site</th>
                    <th>Picking</th>
                    <th className="num">Items there</th>
                  </tr>
                </thead>
                <tbody>
                  {list.map((p) => (
                    <tr
                      key={p.id}
                      data-open
                      tabIndex={0}
                      aria-selected={p.code === open}
                      onClick={() => void navigate(`/shelves/places/${p.code}${window.location.search}`)}
                      onKeyDown={(e) => e.key === 'Enter' && void navigate(`/shelves/places/${p.code}`)}
                    >
                      <td className="gl">
                        <Glyph name={p.blocked ? 'blocked' : p.items > 0 ? 'full' : 'empty'} size={12} says />
                      </td>
                      <td className="code">{p.code}</td>
                      <td>{words(p.kind)}</td>
                      <td className="mid">{p.site}</td>
                      <td className="mid">{p.pickable ? 'open' : ''}</td>
                      <td className="num">{p.items || ''}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )
          }
        </Shown>
      </section>
      <Outlet />
    </div>
  );
}

/** One place: what lies there, whether it is open to picking or blocked. */
export function PlaceSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ['place', code],
    queryFn: () => ask(api.GET('/api/places/{code}', { params: { path: { code } } })),
  });
  const change = useMutation({
    mutationFn: (body: Dto['EditPlaceDto']) =>
      ask(
        api.PATCH('/api/places/{code}', {
          params: { path: { code } },
          headers: ifMatch(query.data?.version ?? 0),
          body,
        }),
      ),
    onSettled: () => client.invalidateQueries(),
  });
  return (
    <Shown query={query}>
      {(p) => (
        <Sheet address={`places/${p.code}`} title={p.code} about={words(p.kind)} code={p.code} back="/shelves/places">
          <Waybill
            cells={[
              { cap: 'Site', value: p.site },
              { cap: 'Kind', value: words(p.kind) },
              { cap: 'Picking', value: p.pickable ? 'open' : 'not open' },
              { cap: 'State', value: p.blocked ? 'blocked' : 'in use' },
            ]}
          />
          {p.stock.length === 0 ? (
            <Empty title="Nothing lies here">Goods come by two scans: the goods, then this place’s label.</Empty>
          ) : (
            <table className="lines">
              <thead>
                <tr>
                  <th />
                  <th>Item</th>
                  <th>Lot</th>
                  <th>Condition</th>
                  <th className="num">Units</th>
                </tr>
              </thead>
              <tbody>
                {p.stock.map((s) => (
                  <tr key={`${s.sku}${s.lot}${s.condition}`}>
                    <td className="pc">
                      <Picture name={s.picture} size={30} />
                    </td>
                    <td>
                      <b>
                        <Link to={`/shelves/items/${s.sku}`}>{s.name}</Link>
                      </b>
                      <span className="note code">{s.sku}</span>
                    </td>
                    <td className="code">{s.lot}</td>
                    <td className={s.condition === 'good' ? 'mid' : 'stamped'}>{s.condition}</td>
                    <td className="num strong">{whole(s.units)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <ProblemNote problem={change.error} />
          {me.data?.rights.includes('set-up') && (
            <div className="acts">
              <button type="button" className="act" onClick={() => change.mutate({ pickable: !p.pickable })}>
                {p.pickable ? 'Close to picking' : 'Open to picking'}
              </button>
              <button type="button" className="act" onClick={() => change.mutate({ blocked: !p.blocked })}>
                {p.blocked ? 'Free the place' : 'Block the place'}
              </button>
            </div>
          )}
        </Sheet>
      )}
    </Shown>
  );
}

interface Values {
  code: string;
  kind: (typeof KINDS)[number];
  siteId: number;
  pickable: boolean;
}

/** Makes one place. */
export function PlaceForm() {
  const me = useMe();
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useForm<Values>({
    defaultValues: { code: '', kind: 'pick-face', pickable: true, siteId: me.data?.sites[0]?.id ?? 1 },
  });
  const save = useMutation({
    mutationFn: (v: Values) => ask(api.POST('/api/places', { body: { ...v, siteId: Number(v.siteId) } })),
    onSuccess: async (made) => {
      await client.invalidateQueries();
      void navigate(`/shelves/places/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  return (
    <Sheet address="places/new" title="New place" back="/shelves/places">
      <form className="flex flex-col flex-1 gap-3 mt-3 max-w-[420px]" onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)}>
        <Field label="Code, such as C-07-2" fault={fields['code']}>
          <input className="input code" autoFocus {...form.register('code')} />
        </Field>
        <Field label="Kind">
          <select className="input" {...form.register('kind')}>
            {KINDS.map((k) => (
              <option key={k} value={k}>
                {words(k)}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Site">
          <select className="input" {...form.register('siteId')}>
            {me.data?.sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </Field>
        <label className="flex gap-2 items-center">
          <input type="checkbox" {...form.register('pickable')} /> Open to picking
        </label>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the place <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}
