import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useForm, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../../api/client';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { useDrawings, useMe } from '../../../api/queries';
import { Picture } from '../../../ui/picture';
import { Sheet } from '../../../ui/sheet';
import { ProblemNote, Shown } from '../../../ui/states';
import { ExtraInputs, PackRows, PartRows, SiteRows } from './item-form-tables';
import { bodyOf, freshValues, valuesOf, type ItemValues } from './item-values';

/** Makes or changes an item: its names, how it is tracked, its ladder of pack units, its parts, what it is at each site. */
export function ItemForm() {
  const { sku } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('item', sku),
    queryFn: () => ask(api.GET('/api/items/{sku}', { params: { path: { sku: sku ?? '' } } })),
    enabled: sku !== undefined,
  });
  if ((sku && !query.data) || !me.data) return <Shown query={query}>{() => null}</Shown>;
  return <Form key={query.data?.version ?? 'new'} item={query.data} me={me.data} />;
}

function Form({ item, me }: { item: Dto['ItemDto'] | undefined; me: Dto['MeDto'] }) {
  const navigate = useNavigate();
  const drawings = useDrawings();
  const { register, control, handleSubmit } = useForm<ItemValues>({ defaultValues: item ? valuesOf(item) : freshValues(me.sites) });
  const [picture, kind, tracking] = useWatch({ control, name: ['picture', 'kind', 'tracking'] });
  const money = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')), staleTime: 60_000 });
  const extra = useQuery({ queryKey: key('extra-fields'), queryFn: () => ask(api.GET('/api/items/extra-fields')), staleTime: 60_000 });
  const save = useAct({
    act: (v: ItemValues, once) => {
      const body = bodyOf(v, me.seesCosts);
      return ask(
        item
          ? api.PUT('/api/items/{sku}', { params: { path: { sku: item.sku } }, headers: { ...once, ...ifMatch(item.version) }, body })
          : api.POST('/api/items', { body, headers: once }),
      );
    },
    onDone: (made) => {
      void navigate(`/shelves/items/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  return (
    <Sheet
      address={item ? `items/${item.sku}/edit` : 'items/new'}
      title={item ? `Change ${item.name}` : 'New item'}
      back={item ? `/shelves/items/${item.sku}` : '/shelves/items'}
    >
      <form className="flex flex-col flex-1 gap-3 mt-3" onSubmit={(e) => void handleSubmit((v) => save.mutate(v))(e)}>
        <div className="grid gap-4" style={{ gridTemplateColumns: '1fr 2fr 1.2fr 1.2fr' }}>
          <Field label="SKU" fault={fields['sku']}>
            <input className="input code" readOnly={item !== undefined} autoFocus={!item} {...register('sku')} />
          </Field>
          <Field label="Name" fault={fields['name']}>
            <input className="input" {...register('name')} />
          </Field>
          <Field label="Class" fault={fields['className']}>
            <input className="input" {...register('className')} />
          </Field>
          <Field label="Tags, a comma between" fault={fields['tags']}>
            <input className="input" {...register('tags')} />
          </Field>
        </div>
        <div className="grid gap-4 items-end" style={{ gridTemplateColumns: 'auto 1fr 1fr 1.2fr 1.2fr 1.4fr' }}>
          <Picture name={picture} size={44} />
          <Field label="Drawing">
            <select className="input" {...register('picture')}>
              {[...drawings.keys()].map((p) => (
                <option key={p}>{p}</option>
              ))}
            </select>
          </Field>
          <Field label="Kind">
            <select className="input" {...register('kind')}>
              <option value="single">single</option>
              <option value="kit">kit</option>
              <option value="assembly">assembly</option>
            </select>
          </Field>
          <Field label="Tracked by">
            <select className="input" {...register('tracking')}>
              <option value="none">nothing</option>
              <option value="lot">lot</option>
              <option value="lot-expiry">lot and date</option>
              <option value="serial">serial number</option>
            </select>
          </Field>
          <Field label="What goes first">
            <select className="input" {...register('rotation')}>
              <option value="fifo">first in</option>
              <option value="fefo">first to expire</option>
            </select>
          </Field>
          <Field label="May stand">
            <select className="input" {...register('storage')}>
              <option value="any">anywhere</option>
              <option value="cold">in cold zones only</option>
              <option value="restricted">in restricted zones only</option>
            </select>
          </Field>
          {tracking === 'lot-expiry' && (
            <Field label="Least life on arrival, days" fault={fields['minLifeDays']}>
              <input className="input num" inputMode="numeric" placeholder="any" {...register('minLifeDays')} />
            </Field>
          )}
        </div>
        <div className="grid gap-4 items-end" style={{ gridTemplateColumns: '1fr 1fr 1fr 2fr' }}>
          {me.seesCosts && (
            <Field label={`Cost, ${me.homeCurrency}`} fault={fields['cost']}>
              <input className="input num" inputMode="decimal" {...register('cost')} />
            </Field>
          )}
          {me.seesCosts && kind === 'assembly' && (
            <Field label={`Labour for one, ${me.homeCurrency}`} fault={fields['labour']}>
              <input className="input num" inputMode="decimal" {...register('labour')} />
            </Field>
          )}
          <Field label="Tax" fault={fields['taxCode']}>
            <select className="input" {...register('taxCode')}>
              <option value="">none</option>
              {money.data?.taxRates.map((t) => (
                <option key={t.code} value={t.code}>
                  {t.name}, {t.percent} %
                </option>
              ))}
            </select>
          </Field>
          <label className="flex gap-2 items-center h-[30px]">
            <input type="checkbox" {...register('neverHoldsUp')} /> Never holds up an order
          </label>
        </div>
        <PackRows control={control} register={register} />
        {kind !== 'single' && <PartRows control={control} register={register} />}
        <SiteRows control={control} register={register} seesCosts={me.seesCosts} />
        {(extra.data?.length ?? 0) > 0 && <ExtraInputs fields={extra.data ?? []} register={register} />}
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the item <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}
