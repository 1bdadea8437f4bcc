import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useAddress, withParam } from '../../../ui/address';
import { api, ask, ifMatch, type Dto } from '../../../api/client';
import { usePreference } from '../../../api/preferences';
import { useMe } from '../../../api/queries';
import { ExportLinks } from '../../../ui/export-links';
import { Words } from '../../../ui/field';
import { Empty, ProblemNote, Skeleton } from '../../../ui/states';
import { useWindows } from '../../../ui/windows';
import { ShelvesWords } from '../shelves-words';
import { BulkBar } from './bulk-bar';
import { ColumnsMenu } from './columns-menu';
import { columnsOf, ITEM_COLUMNS, NARROW_COLUMNS, ownColumns, USUAL_COLUMNS, type ItemColumn, type ItemRow } from './item-columns';
import { ItemTable } from './item-table';
import { OwnFilter } from './own-filter';
import { Views } from './views';
import { ListPage, useBeside } from '../../../ui/list-page';
import { Select, Input } from '../../../ui/input';
import { TextLink } from '../../../ui/button';
import { FilterLine } from '../../../ui/page';
import { itemPath } from '../../item-path';

const FILTERS = ['search', 'site', 'className', 'tag', 'supplier', 'state', 'sort', 'own', 'ownIs', 'ownHas'] as const;
type Filter = (typeof FILTERS)[number];
const STATES = [
  ['all', 'All', 'all'],
  ['short', 'None free', 'short'],
  ['reorder', 'To reorder', 'reorder'],
  ['backordered', 'Backordered', 'backordered'],
  ['incomplete', 'Incomplete', 'incomplete'],
  ['no-barcode', 'No barcode', 'noBarcode'],
] as const;

function Choice({
  label,
  value,
  words,
  onChange,
}: {
  label: string;
  value: string;
  words: readonly (readonly [string, string])[];
  onChange: (v: string) => void;
}) {
  return (
    <Select style={{ width: 'auto', maxWidth: 168 }} aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
      <option value="">{label}</option>
      {words.map(([v, says]) => (
        <option key={v} value={v}>
          {says}
        </option>
      ))}
    </Select>
  );
}

/** The catalogue with its stock: a long list that is narrowed, arranged and changed where it stands; the open item beside it. */
export function ItemsPage() {
  const beside = useBeside();
  const { sku: open } = useParams();
  const [params, readdress] = useAddress();
  const navigate = useNavigate();
  const me = useMe();
  const [{ columns }, keepColumns] = usePreference('item-columns', { columns: USUAL_COLUMNS });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const filter = Object.fromEntries(FILTERS.flatMap((f) => (params.get(f) ? [[f, params.get(f) ?? '']] : []))) as Partial<
    Record<Filter, string>
  >;
  const list = useWindows<ItemRow>(['items', filter], (from, limit) =>
    ask(api.GET('/api/items', { params: { query: { ...filter, from: String(from), limit: String(limit) } } })),
  );
  const { state: _state, sort: _sort, ...narrowed } = filter;
  const counts = useQuery({
    queryKey: key('items', 'counts', narrowed),
    queryFn: () => ask(api.GET('/api/items/counts', { params: { query: narrowed } })),
    placeholderData: (was) => was,
  });
  const choices = useQuery({ queryKey: key('items', 'choices'), queryFn: () => ask(api.GET('/api/items/choices')), staleTime: 60_000 });
  const set = (key: Filter, value: string) => readdress((p) => withParam(p, key, value === 'all' ? '' : value));
  const change = useAct({
    act: ({ row, ...body }: Dto['ChangeFieldDto'] & { row: ItemRow }, once) =>
      ask(api.PATCH('/api/items/{sku}', { params: { path: { sku: row.sku } }, headers: { ...once, ...ifMatch(row.version) }, body })),
  });
  const changeMany = useAct({
    act: (body: Dto['ChangeFieldDto'], once) =>
      ask(api.POST('/api/items/changes', { body: { ...body, skus: [...chosen] }, headers: once })),
  });
  const makeBarcodes = useAct({
    act: (_: void, once) => ask(api.POST('/api/items/barcodes', { body: { skus: [...chosen], make: 'restricted' }, headers: once })),
  });
  const canEdit = me.data?.rights.includes('items') === true;
  const seesCosts = me.data?.seesCosts === true;
  const fields = useQuery({
    queryKey: key('extra-fields'),
    queryFn: () => ask(api.GET('/api/items/extra-fields')),
    staleTime: 60_000,
  });
  const own = fields.data?.fields ?? [];
  const all = [...ITEM_COLUMNS, ...ownColumns(own)];
  const shown = columnsOf(beside ? NARROW_COLUMNS : columns, seesCosts, all);
  const query = window.location.search;
  const onChange = (row: ItemRow, column: ItemColumn, value: string) => {
    if (!column.edit) return;
    const siteId = column.edit.site ? Number(filter.site ?? me.data?.sites[0]?.id) : null;
    change.mutate({ row, field: column.edit.field, value, siteId });
  };
  return (
    <ListPage title="Items" width={540} className="flex flex-col">
      <ShelvesWords at="items">
        {!beside && (
          <span className="flex gap-5 items-baseline">
            <Views query={new URLSearchParams(filter).toString()} />
            <ColumnsMenu
              all={all}
              shown={columns}
              seesCosts={seesCosts}
              onChange={keepColumns && ((keys) => keepColumns({ columns: keys }))}
            />
            <ExportLinks list="items" query={{ ...filter, columns: shown.map((c) => c.key).join(',') }} />
            {canEdit && <TextLink to="/setup/imports">Import</TextLink>}
          </span>
        )}
        {canEdit && <TextLink to="/shelves/items/new">New item</TextLink>}
      </ShelvesWords>
      <FilterLine>
        <Words
          label="Show"
          value={filter.state ?? 'all'}
          onChange={(v) => set('state', v)}
          words={STATES.slice(0, beside ? 4 : 6).map(([value, says, key]) => ({
            value,
            says,
            ...(counts.data ? { count: counts.data[key] } : {}),
          }))}
        />
        {!beside && (
          <span className="flex gap-2">
            {(me.data?.sites.length ?? 0) > 1 && (
              <Choice
                label="Every site"
                value={filter.site ?? ''}
                onChange={(v) => set('site', v)}
                words={me.data?.sites.map((s) => [String(s.id), s.name] as const) ?? []}
              />
            )}
            <Choice
              label="Every class"
              value={filter.className ?? ''}
              onChange={(v) => set('className', v)}
              words={(choices.data?.classes ?? []).map((c) => [c, c] as const)}
            />
            <Choice
              label="Every tag"
              value={filter.tag ?? ''}
              onChange={(v) => set('tag', v)}
              words={(choices.data?.tags ?? []).map((t) => [t, t] as const)}
            />
            <Choice
              label="Every supplier"
              value={filter.supplier ?? ''}
              onChange={(v) => set('supplier', v)}
              words={(choices.data?.suppliers ?? []).map((s) => [s, s] as const)}
            />
            <OwnFilter
              fields={own}
              own={filter.own ?? ''}
              value={filter.ownIs ?? filter.ownHas ?? ''}
              onChange={(values) =>
                readdress((p) => Object.entries(values).reduce((next, [name, value]) => withParam(next, name, value), p))
              }
            />
            <Input
              style={{ width: 150 }}
              type="search"
              aria-label="Narrow the list"
              placeholder="Narrow the list"
              defaultValue={filter.search ?? ''}
              onChange={(e) => set('search', e.target.value)}
            />
          </span>
        )}
      </FilterLine>
      <ProblemNote problem={change.error ?? changeMany.error ?? makeBarcodes.error} />
      {list.error ? (
        <ProblemNote problem={list.error} onRetry={list.refetch} />
      ) : list.total === undefined ? (
        <Skeleton rows={16} />
      ) : list.total === 0 ? (
        Object.keys(filter).length > 0 ? (
          <Empty title="Nothing fits">Type less of the name, or show all.</Empty>
        ) : (
          <Empty title="No items yet">
            Take in a spreadsheet in <Link to="/setup/imports">Setup, Imports</Link>, or make the first one by hand.
          </Empty>
        )
      ) : (
        <ItemTable
          list={list}
          columns={shown}
          open={open}
          chosen={chosen}
          sort={filter.sort ?? 'class'}
          canEdit={canEdit}
          mayChoose={canEdit && !beside}
          onOpen={(sku) => void navigate(`${itemPath(sku)}${query}`)}
          onChoose={(skus, on) =>
            setChosen((was) => {
              const next = new Set(was);
              for (const sku of skus)
                if (on) next.add(sku);
                else next.delete(sku);
              return next;
            })
          }
          onSort={(s) => set('sort', s)}
          onChange={onChange}
        />
      )}
      {chosen.size > 0 && canEdit && !beside && (
        <BulkBar
          count={chosen.size}
          sites={me.data?.sites ?? []}
          seesCosts={seesCosts}
          busy={changeMany.isPending || makeBarcodes.isPending}
          made={makeBarcodes.data}
          onMakeBarcodes={() => makeBarcodes.mutate()}
          onApply={(c) => changeMany.mutate(c)}
          onClear={() => {
            setChosen(new Set());
            makeBarcodes.reset();
          }}
          print={`/setup/labels/print?subject=item&codes=${encodeURIComponent([...chosen].join(','))}`}
        />
      )}
    </ListPage>
  );
}
