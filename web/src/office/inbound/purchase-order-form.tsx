import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useEffect, useState } from 'react';
import { dueDay } from '@vectrum/core/buying';
import { useController, useFieldArray, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { useMe, useSuppliers } from '../../api/queries';
import { DoorSelect } from './door-select';
import { Field } from '../../ui/field';
import { useScanClaim } from '../../scanner/scan-claim';
import { SelectField } from '../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { emptyLine, lineSum, type OrderValues } from './line-sum';
import { OrderFormCharges } from './order-form-charges';
import { OrderFormLines } from './order-form-lines';
import { followList, minimumWords } from './order-prices';
import { ShownSheet } from '../../ui/sheet';
import { Input } from '../../ui/input';
import { LinesTable } from '../../ui/table';
import { TextButton } from '../../ui/button';

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
  const suppliers = useSuppliers();
  const order = useQuery({
    queryKey: key('purchase-order', code),
    queryFn: () => ask(api.GET('/api/purchase-orders/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !order.data)
    return (
      <ShownSheet query={order} back="/inbound">
        {() => null}
      </ShownSheet>
    );
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
  return <Form order={order.data} fresh={fresh} suppliers={suppliers.data ?? []} sites={me.data.sites} />;
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
  const record = useRecord<OrderValues, { code: string }>({
    source: { values: order ? valuesOf(order) : fresh, version: order?.version },
    save: (v, version, once) => {
      const body = bodyOf(v) as never;
      return ask(
        version === undefined
          ? api.POST('/api/purchase-orders', { body, headers: once })
          : api.PUT('/api/purchase-orders/{code}', {
              params: { path: { code: order?.code ?? '' } },
              headers: { ...once, ...ifMatch(version) },
              body,
            }),
      );
    },
    onSaved: (made) => void navigate(`/inbound/${made.code}`),
  });
  const { form } = record;
  const lines = useFieldArray({ control: form.control, name: 'lines' });
  const supplierCode = useWatch({ control: form.control, name: 'supplier' });
  const watched = useWatch({ control: form.control, name: 'lines' });
  const charged = useWatch({ control: form.control, name: 'charges' });
  const siteId = useWatch({ control: form.control, name: 'siteId' });
  const door = useController({ control: form.control, name: 'door' });
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
    <RecordForm
      record={record}
      words={WORDS}
      address={order ? `inbound/${order.code}/edit` : 'inbound/new'}
      title={order ? `${placed ? 'Change' : 'Rewrite'} ${order.code}` : 'Write a purchase order'}
      about={placed ? 'Placed already: every change is kept, and the supplier is told' : undefined}
      back={order ? `/inbound/${order.code}` : '/inbound'}
      keep={placed ? 'Keep the changes, tell the supplier' : 'Keep the draft'}
      ready={ready}
      more={!ready && <span className="note">One line with goods and a quantity is missing</span>}
      wide
    >
      <div className="grid gap-4 grid-cols-2 lg:grid-cols-[2fr_1.2fr_1fr_1fr_1.8fr]">
        <SelectField name="supplier" label="Supplier" autoFocus>
          {!placed && <option value="">Choose one</option>}
          {suppliers
            .filter((s) => !placed || s.code === order.supplierCode)
            .map((s) => (
              <option key={s.code} value={s.code}>
                {s.name}
              </option>
            ))}
        </SelectField>
        <SelectField name="siteId" label="To">
          {sites
            .filter((s) => !placed || s.id === order.siteId)
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
        </SelectField>
        <Field label="Expected on">
          <Input type="date" {...form.register('expectedOn')} />
        </Field>
        <Field label="Door" fault={record.fault('door')}>
          <DoorSelect siteId={Number(siteId)} {...door.field} />
        </Field>
        <Field label="Note to the supplier">
          <Input maxLength={500} {...form.register('note')} />
        </Field>
      </div>
      {stray && (
        <p role="alert" className="note stamped mt-2">
          {stray}
        </p>
      )}
      <div className="overflow-x-auto">
        <LinesTable onKeyDown={onEnter}>
          <thead>
            <tr>
              <td />
              <td />
              <th>Goods</th>
              <th className="num">How many</th>
              <th>In</th>
              <th className="num">Price of one</th>
              <th>Own day</th>
              <th className="num">That is</th>
              <th className="num">Goods</th>
              <td />
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
        </LinesTable>
      </div>
      <div className="flex items-start justify-between mt-3">
        <div>
          <TextButton type="button" onClick={() => lines.append({ ...emptyLine })}>
            Another line
          </TextButton>
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
    </RecordForm>
  );
}

const WORDS: Readonly<Record<keyof OrderValues, FieldWords>> = {
  supplier: { label: 'Supplier' },
  siteId: { label: 'To' },
  expectedOn: { label: 'Expected on' },
  door: { label: 'Door' },
  note: { label: 'Note to the supplier' },
  lines: { label: 'Lines', show: (lines: OrderValues['lines']) => lines.map((l) => `${l.packs} × ${l.sku} at ${l.price}`).join('; ') },
  charges: { label: 'Charges', show: (charges: OrderValues['charges']) => charges.map((c) => `${c.says} ${c.amount}`).join('; ') },
};
