import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useEffect, useState } from 'react';
import { dueDay } from '@vectrum/core/buying';
import { useFieldArray, useForm, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { DoorSelect } from './door-select';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { useScanClaim } from '../../ui/scan-claim';
import { Sheet } from '../../ui/sheet';
import { ProblemNote, Shown } from '../../ui/states';
import { emptyLine, lineSum, type OrderValues } from './line-sum';
import { OrderFormCharges } from './order-form-charges';
import { OrderFormLines } from './order-form-lines';
import { followList, minimumWords } from './order-prices';

type Order = Dto['PurchaseOrderDto'];

const plain = (price: string | undefined) => (price ?? '').replace(/(\.\d\d)0+$/, '$1');

function valuesOf(order: Order): OrderValues {
  return {
    supplier: order.supplierCode,
    siteId: order.siteId,
    expectedOn: order.expectedOn ?? '',
    door: order.door ?? '',
    note: order.note,
    lines: order.lines.map((l) => ({
      sku: l.sku,
      factor: l.factor,
      packs: String(l.packs),
      price: plain(l.price),
      expectedOn: l.expectedOn ?? '',
    })),
    charges: (order.charges ?? []).map((c) => ({ says: c.says, amount: plain(c.amount), by: c.by })),
  };
}

/** Writes a purchase order in packs; base units and prices show both ways as it is typed. Enter goes on to the next line. */
export function PurchaseOrderForm() {
  const { code } = useParams();
  const me = useMe();
  const suppliers = useQuery({ queryKey: key('suppliers'), queryFn: () => ask(api.GET('/api/suppliers')) });
  const order = useQuery({
    queryKey: key('purchase-order', code),
    queryFn: () => ask(api.GET('/api/purchase-orders/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !order.data) return <Shown query={order}>{() => null}</Shown>;
  if (!me.data) return null;
  const fresh: OrderValues = {
    supplier: '',
    siteId: me.data.sites[0]?.id ?? 0,
    expectedOn: '',
    door: '',
    note: '',
    lines: [emptyLine],
    charges: [],
  };
  return (
    <Form key={order.data?.version ?? 'new'} order={order.data} fresh={fresh} suppliers={suppliers.data ?? []} sites={me.data.sites} />
  );
}

function bodyOf(v: OrderValues) {
  return {
    supplier: v.supplier,
    siteId: Number(v.siteId),
    expectedOn: v.expectedOn || null,
    door: v.door || null,
    note: v.note,
    lines: v.lines
      .filter((l) => l.sku)
      .map((l) => ({ sku: l.sku, factor: Number(l.factor), packs: Number(l.packs), price: l.price, expectedOn: l.expectedOn || null })),
    charges: v.charges.filter((c) => c.amount !== ''),
  };
}

function Form({
  order,
  fresh,
  suppliers,
  sites,
}: {
  order: Order | undefined;
  fresh: OrderValues;
  suppliers: Dto['SupplierDto'][];
  sites: Dto['SiteDto'][];
}) {
  const navigate = useNavigate();
  const form = useForm<OrderValues>({ defaultValues: order ? valuesOf(order) : fresh });
  const lines = useFieldArray({ control: form.control, name: 'lines' });
  const supplierCode = useWatch({ control: form.control, name: 'supplier' });
  const watched = useWatch({ control: form.control, name: 'lines' });
  const charged = useWatch({ control: form.control, name: 'charges' });
  const siteId = useWatch({ control: form.control, name: 'siteId' });
  const [stray, setStray] = useState('');
  const placed = order !== undefined && order.state !== 'draft';
  const supplier = useQuery({
    queryKey: key('supplier', supplierCode),
    queryFn: () => ask(api.GET('/api/suppliers/{code}', { params: { path: { code: supplierCode } } })),
    enabled: supplierCode !== '',
  });
  useEffect(() => {
    if (supplier.data && !form.getValues('expectedOn'))
      form.setValue('expectedOn', dueDay(new Date().toISOString().slice(0, 10), supplier.data.leadDays, supplier.data.workingDays));
  }, [supplier.data, form]);
  const save = useAct({
    act: (v: OrderValues, once) => {
      const body = bodyOf(v) as never;
      return ask(
        order
          ? api.PUT('/api/purchase-orders/{code}', {
              params: { path: { code: order.code } },
              headers: { ...once, ...ifMatch(order.version) },
              body,
            })
          : api.POST('/api/purchase-orders', { body, headers: once }),
      );
    },
    onDone: (made) => {
      void navigate(`/inbound/${made.code}`);
    },
  });
  /** A scan of goods or of a pack puts them on the order, or one more of them. */
  useScanClaim((code) => {
    void ask(api.GET('/api/look', { params: { query: { code } } })).then((seen) => {
      const item = supplier.data?.items.find((i) => i.sku === seen.item?.sku);
      if (!item) return setStray(`${seen.title} is not on ${supplier.data ? `${supplier.data.name}’s` : 'a'} price list`);
      setStray('');
      const factor = item.packs.find((p) => p.id === item.packId)?.factor ?? 1;
      const at = form.getValues('lines').findIndex((l) => l.sku === item.sku);
      const was = at >= 0 ? form.getValues(`lines.${at}`) : { ...emptyLine, sku: item.sku, factor };
      const next = followList(item, was, { ...was, packs: String(Number(was.packs || '0') + 1) });
      const free = form.getValues('lines').findIndex((l) => l.sku === '');
      if (at >= 0) form.setValue(`lines.${at}`, next);
      else if (free >= 0) form.setValue(`lines.${free}`, next);
      else lines.append(next);
    });
  });
  const goods = watched.reduce((sum, l) => sum + (lineSum(l)?.goods ?? 0n), 0n);
  const extra = charged.reduce((sum, c) => sum + (/^\d{1,10}(\.\d{1,2})?$/.test(c.amount) ? micro(c.amount) : 0n), 0n);
  const ready = watched.some((l) => l.sku && lineSum(l));
  const onEnter = (e: React.KeyboardEvent) => {
    if (e.key !== 'Enter' || !(e.target instanceof HTMLInputElement)) return;
    e.preventDefault();
    lines.append({ ...emptyLine });
  };
  return (
    <Sheet
      address={order ? `inbound/${order.code}/edit` : 'inbound/new'}
      title={order ? `${placed ? 'Change' : 'Rewrite'} ${order.code}` : 'Write a purchase order'}
      about={placed ? 'Placed already: every change is kept, and the supplier is told' : undefined}
      back={order ? `/inbound/${order.code}` : '/inbound'}
    >
      <form onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)} className="flex flex-col flex-1">
        <div className="grid gap-4 mt-3" style={{ gridTemplateColumns: '2fr 1.2fr 1fr 1fr 1.8fr' }}>
          <Field label="Supplier" fault={form.formState.errors.supplier?.message}>
            <select className="input" {...form.register('supplier', { required: 'Choose a supplier' })} autoFocus>
              {!placed && <option value="">Choose one</option>}
              {suppliers
                .filter((s) => !placed || s.code === order.supplierCode)
                .map((s) => (
                  <option key={s.code} value={s.code}>
                    {s.name}
                  </option>
                ))}
            </select>
          </Field>
          <Field label="To">
            <select className="input" {...form.register('siteId')}>
              {sites
                .filter((s) => !placed || s.id === order.siteId)
                .map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
            </select>
          </Field>
          <Field label="Expected on">
            <input type="date" className="input" {...form.register('expectedOn')} />
          </Field>
          <Field label="Door" fault={save.error instanceof ProblemError ? save.error.fields['door'] : undefined}>
            <DoorSelect siteId={Number(siteId)} {...form.register('door')} />
          </Field>
          <Field label="Note to the supplier">
            <input className="input" maxLength={500} {...form.register('note')} />
          </Field>
        </div>
        {stray && (
          <p role="alert" className="note stamped mt-2">
            {stray}
          </p>
        )}
        <table className="lines" onKeyDown={onEnter}>
          <thead>
            <tr>
              <th />
              <th />
              <th>Goods</th>
              <th className="num">How many</th>
              <th>In</th>
              <th className="num">Price of one</th>
              <th>Own day</th>
              <th className="num">That is</th>
              <th className="num">Goods</th>
              <th />
            </tr>
          </thead>
          <OrderFormLines
            form={form}
            fields={lines.fields}
            watched={watched}
            supplier={supplier.data}
            placed={placed ? order.lines.length : 0}
            onRemove={lines.remove}
          />
        </table>
        <div className="flex items-start justify-between mt-3">
          <div>
            <button type="button" className="act-link" onClick={() => lines.append({ ...emptyLine })}>
              Another line
            </button>
            <OrderFormCharges form={form} />
          </div>
          <div className="text-right">
            <b style={{ fontSize: 18 }}>{moneyText(goods + extra, supplier.data?.currency)}</b>
            {extra > 0n && <span className="note block">of it charges {moneyText(extra, supplier.data?.currency)}</span>}
            {ready &&
              minimumWords(supplier.data, watched).map((says) => (
                <span key={says} className="note stamped block">
                  {says}
                </span>
              ))}
          </div>
        </div>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button type="submit" className="act act-next" disabled={save.isPending || !ready}>
            {placed ? 'Keep the changes, tell the supplier' : 'Keep the draft'} <Glyph name="go" size={13} />
          </button>
          {!ready && <span className="note">One line with goods and a quantity is missing</span>}
        </div>
      </form>
    </Sheet>
  );
}
