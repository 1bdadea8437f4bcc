import { useQuery } from '@tanstack/react-query';
import { useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useDrawings, useMe } from '../../../api/queries';
import { Picture } from '../../../ui/picture';
import { CheckField, NumberField, SelectField, TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { ExtraInputs, PackRows, PartRows, SiteRows } from './item-form-tables';
import { bodyOf, freshValues, valuesOf, type ItemValues } from './item-values';
import { ShownSheet } from '../../../ui/sheet';
import { itemPath } from '../../item-path';

/** Makes or changes an item: its names, how it is tracked, its ladder of pack units, its parts, what it is at each site. */
export function ItemForm() {
  const { sku } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('item', sku),
    queryFn: () => ask(api.GET('/api/items/{sku}', { params: { path: { sku: sku ?? '' } } })),
    enabled: sku !== undefined,
  });
  if ((sku && !query.data) || !me.data)
    return (
      <ShownSheet query={query} back="/shelves/items">
        {() => null}
      </ShownSheet>
    );
  return <Form item={query.data} me={me.data} />;
}

function Form({ item, me }: { item: Dto['ItemDto'] | undefined; me: Dto['MeDto'] }) {
  const navigate = useNavigate();
  const drawings = useDrawings();
  const record = useRecord<ItemValues, { code: string }>({
    source: { values: item ? valuesOf(item) : freshValues(me.sites), version: item?.version },
    save: (v, version, once) => {
      const body = bodyOf(v, me.seesCosts);
      return ask(
        version === undefined
          ? api.POST('/api/items', { body, headers: once })
          : api.PUT('/api/items/{sku}', { params: { path: { sku: v.sku } }, headers: { ...once, ...ifMatch(version) }, body }),
      );
    },
    onSaved: (made) => void navigate(itemPath(made.code)),
  });
  const { register, control } = record.form;
  const [picture, kind, tracking] = useWatch({ control, name: ['picture', 'kind', 'tracking'] });
  const money = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')), staleTime: 60_000 });
  const extra = useQuery({ queryKey: key('extra-fields'), queryFn: () => ask(api.GET('/api/items/extra-fields')), staleTime: 60_000 });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={item ? `items/${item.sku}/edit` : 'items/new'}
      title={item ? `Change ${item.name}` : 'New item'}
      back={item ? itemPath(item.sku) : '/shelves/items'}
      keep="Keep the item"
      wide
    >
      <div className="grid gap-4 grid-cols-2 lg:grid-cols-[1fr_2fr_1.2fr_1.2fr]">
        <TextField name="sku" label="SKU" code readOnly={item !== undefined} autoFocus={!item} />
        <TextField name="name" label="Name" />
        <TextField name="className" label="Class" />
        <TextField name="tags" label="Tags, a comma between" />
      </div>
      <div className="grid gap-4 items-end grid-cols-2 lg:grid-cols-[auto_1fr_1fr_1.2fr_1.2fr_1.4fr]">
        <Picture name={picture} size={44} />
        <SelectField name="picture" label="Drawing">
          {[...drawings.keys()].map((p) => (
            <option key={p}>{p}</option>
          ))}
        </SelectField>
        <SelectField name="kind" label="Kind">
          <option value="single">single</option>
          <option value="kit">kit</option>
          <option value="assembly">assembly</option>
        </SelectField>
        <SelectField name="tracking" label="Tracked by">
          <option value="none">nothing</option>
          <option value="lot">lot</option>
          <option value="lot-expiry">lot and date</option>
          <option value="serial">serial number</option>
        </SelectField>
        <SelectField name="rotation" label="What goes first">
          <option value="fifo">first in</option>
          <option value="fefo">first to expire</option>
        </SelectField>
        <SelectField name="storage" label="May stand">
          <option value="any">anywhere</option>
          <option value="cold">in cold zones only</option>
          <option value="restricted">in restricted zones only</option>
        </SelectField>
        {tracking === 'lot-expiry' && <NumberField name="minLifeDays" label="Least life on arrival, days" placeholder="any" />}
      </div>
      <div className="grid gap-4 items-end grid-cols-2 lg:grid-cols-[1fr_1fr_1fr_2fr]">
        {me.seesCosts && <NumberField name="cost" label={`Cost until the books know one, ${me.homeCurrency}`} />}
        {me.seesCosts && kind === 'assembly' && <NumberField name="labour" label={`Labour for one, ${me.homeCurrency}`} />}
        <SelectField name="taxCode" label="Tax">
          <option value="">none</option>
          {money.data?.taxRates.map((t) => (
            <option key={t.code} value={t.code}>
              {t.name}, {t.percent} %
            </option>
          ))}
        </SelectField>
        <span className="grid gap-1 gap-x-5 sm:grid-cols-[auto_auto] col-span-full">
          <CheckField name="neverHoldsUp" label="Never holds up an order" />
          <CheckField name="scanEach" label="Every piece is scanned when it is picked" />
          <CheckField name="serialAtPacking" label="A serial number is scanned when it is packed" />
          <CheckField name="keepUpright" label="Kept upright in a box" />
          <CheckField name="fragile" label="Fragile: nothing stands on it" />
        </span>
      </div>
      <PackRows control={control} register={register} />
      {kind !== 'single' && <PartRows control={control} register={register} />}
      <SiteRows control={control} register={register} seesCosts={me.seesCosts} />
      {(extra.data?.fields.length ?? 0) > 0 && <ExtraInputs fields={extra.data?.fields ?? []} register={register} />}
    </RecordForm>
  );
}

const rowsOf = (rows: readonly object[]) => rows.map((r) => Object.values(r).filter(Boolean).join(' ')).join('; ');
const WORDS: Readonly<Record<keyof ItemValues, FieldWords>> = {
  sku: { label: 'SKU' },
  name: { label: 'Name' },
  className: { label: 'Class' },
  picture: { label: 'Drawing' },
  kind: { label: 'Kind' },
  tracking: { label: 'Tracked by' },
  rotation: { label: 'What goes first' },
  storage: { label: 'May stand' },
  minLifeDays: { label: 'Least life on arrival' },
  taxCode: { label: 'Tax' },
  cost: { label: 'Cost' },
  labour: { label: 'Labour' },
  neverHoldsUp: { label: 'Never holds up an order' },
  scanEach: { label: 'Every piece is scanned' },
  serialAtPacking: { label: 'Serial number at packing' },
  keepUpright: { label: 'Kept upright' },
  fragile: { label: 'Fragile' },
  tags: { label: 'Tags' },
  packs: { label: 'Pack units', show: rowsOf },
  sites: { label: 'Sites', show: rowsOf },
  parts: { label: 'Parts', show: rowsOf },
  extra: {
    label: 'Own fields',
    show: (own: Record<string, string>) =>
      Object.entries(own)
        .map(([k, v]) => `${k}: ${v}`)
        .join('; '),
  },
};
