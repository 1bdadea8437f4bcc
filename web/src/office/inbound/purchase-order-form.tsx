import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { decimalText, dividedBy, micro, moneyText, times } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { useEffect } from 'react';
import { useFieldArray, useForm, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet } from '../../ui/sheet';
import { ProblemNote, Shown } from '../../ui/states';
import { type FormLine, lineSum } from './line-sum';

interface FormValues {
  supplier: string;
  siteId: number;
  expectedOn: string;
  note: string;
  lines: FormLine[];
}
type SupplierItem = Dto['SupplierItemDto'];

const priceOf = (item: SupplierItem | undefined, factor: number) => {
  const listed = item?.packs.find((p) => p.id === item.packId);
  if (!item?.price || !listed) return '';
  return decimalText(times(dividedBy(micro(item.price), listed.factor), factor)).replace(/0{1,4}$/, '');
};

function lead(days: number): string {
  const at = new Date();
  at.setDate(at.getDate() + days);
  return at.toISOString().slice(0, 10);
}

const empty: FormLine = { sku: '', factor: 1, packs: '', price: '' };

/** Writes a purchase order in packs; base units and prices show both ways as it is typed. Enter goes on to the next line. */
export function PurchaseOrderForm() {
  const { code } = useParams();
  const me = useMe();
  const suppliers = useQuery({ queryKey: ['suppliers', ''], queryFn: () => ask(api.GET('/api/suppliers')) });
  const order = useQuery({
    queryKey: ['purchase-order', code],
    queryFn: () => ask(api.GET('/api/purchase-orders/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !order.data) return <Shown query={order}>{() => null}</Shown>;
  if (!me.data) return null;
  const values: FormValues = order.data
    ? {
        supplier: order.data.supplierCode,
        siteId: order.data.siteId,
        expectedOn: order.data.expectedOn ?? '',
        note: order.data.note,
        lines: order.data.lines.map((l) => ({
          sku: l.sku,
          factor: l.factor,
          packs: String(l.packs),
          price: (l.price ?? '').replace(/0{1,4}$/, ''),
        })),
      }
    : { supplier: '', siteId: me.data.sites[0]?.id ?? 0, expectedOn: '', note: '', lines: [empty] };
  return (
    <Form
      key={order.data?.version ?? 'new'}
      values={values}
      code={code}
      version={order.data?.version ?? 0}
      suppliers={suppliers.data ?? []}
      sites={me.data.sites}
    />
  );
}

function Form({
  values,
  code,
  version,
  suppliers,
  sites,
}: {
  values: FormValues;
  code: string | undefined;
  version: number;
  suppliers: Dto['SupplierDto'][];
  sites: Dto['SiteDto'][];
}) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const form = useForm<FormValues>({ defaultValues: values });
  const lines = useFieldArray({ control: form.control, name: 'lines' });
  const supplierCode = useWatch({ control: form.control, name: 'supplier' });
  const watched = useWatch({ control: form.control, name: 'lines' });
  const supplier = useQuery({
    queryKey: ['supplier', supplierCode],
    queryFn: () => ask(api.GET('/api/suppliers/{code}', { params: { path: { code: supplierCode } } })),
    enabled: supplierCode !== '',
  });
  const items = supplier.data?.items ?? [];
  useEffect(() => {
    if (supplier.data && !form.getValues('expectedOn')) form.setValue('expectedOn', lead(supplier.data.leadDays));
  }, [supplier.data, form]);
  const save = useMutation({
    mutationFn: (v: FormValues) => {
      const body = {
        supplier: v.supplier,
        siteId: Number(v.siteId),
        expectedOn: v.expectedOn || null,
        note: v.note,
        lines: v.lines.filter((l) => l.sku).map((l) => ({ sku: l.sku, factor: Number(l.factor), packs: Number(l.packs), price: l.price })),
      };
      return ask(
        code
          ? api.PUT('/api/purchase-orders/{code}', {
              params: { path: { code } },
              headers: ifMatch(version),
              body: body as never,
            })
          : api.POST('/api/purchase-orders', { body: body as never }),
      );
    },
    onSuccess: async (made) => {
      await client.invalidateQueries();
      void navigate(`/inbound/${made.code}`);
    },
  });
  const total = watched.reduce((sum, l) => sum + (lineSum(l)?.goods ?? 0n), 0n);
  const choose = (i: number, sku: string) => {
    const item = items.find((x) => x.sku === sku);
    const factor = item?.packs.find((p) => p.id === item.packId)?.factor ?? 1;
    form.setValue(`lines.${i}`, {
      ...form.getValues(`lines.${i}`),
      sku,
      factor,
      price: priceOf(item, factor),
    });
  };
  const onEnter = (e: React.KeyboardEvent) => {
    if (e.key !== 'Enter' || !(e.target instanceof HTMLInputElement)) return;
    e.preventDefault();
    lines.append({ ...empty });
  };
  return (
    <Sheet
      address={code ? `inbound/${code}/edit` : 'inbound/new'}
      title={code ? `Rewrite ${code}` : 'Write a purchase order'}
      back={code ? `/inbound/${code}` : '/inbound'}
    >
      <form onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)} className="flex flex-col flex-1">
        <div className="grid gap-4 mt-3" style={{ gridTemplateColumns: '2fr 1.2fr 1fr 2fr' }}>
          <Field label="Supplier" fault={form.formState.errors.supplier?.message}>
            <select className="input" {...form.register('supplier', { required: 'Choose a supplier' })} autoFocus>
              <option value="">Choose one</option>
              {suppliers.map((s) => (
                <option key={s.code} value={s.code}>
                  {s.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="To">
            <select className="input" {...form.register('siteId')}>
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Expected on">
            <input type="date" className="input" {...form.register('expectedOn')} />
          </Field>
          <Field label="Note to the supplier">
            <input className="input" maxLength={500} {...form.register('note')} />
          </Field>
        </div>
        <table className="lines" onKeyDown={onEnter}>
          <thead>
            <tr>
              <th />
              <th />
              <th>Goods</th>
              <th className="num">How many</th>
              <th>In</th>
              <th className="num">Price of one</th>
              <th className="num">That is</th>
              <th className="num">Goods</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {lines.fields.map((row, i) => {
              const line = watched[i] ?? empty;
              const item = items.find((x) => x.sku === line.sku);
              const base = item?.packs.find((p) => p.factor === 1);
              const sum = lineSum(line);
              return (
                <tr key={row.id}>
                  <td className="ln">{i + 1}</td>
                  <td className="pc">{item && <Picture name={item.picture} size={30} />}</td>
                  <td style={{ minWidth: 190 }}>
                    <select
                      className="input"
                      aria-label={`Goods of line ${i + 1}`}
                      value={line.sku}
                      onChange={(e) => choose(i, e.target.value)}
                      disabled={!supplierCode}
                    >
                      <option value="">{supplierCode ? 'Choose the goods' : 'Choose a supplier first'}</option>
                      {items.map((x) => (
                        <option key={x.sku} value={x.sku}>
                          {x.name}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td className="num" style={{ width: 84 }}>
                    <input
                      className="input num"
                      inputMode="numeric"
                      aria-label={`How many, line ${i + 1}`}
                      {...form.register(`lines.${i}.packs`)}
                      aria-invalid={line.packs !== '' && !sum}
                    />
                  </td>
                  <td style={{ width: 150 }}>
                    <select
                      className="input"
                      aria-label={`Pack of line ${i + 1}`}
                      value={line.factor}
                      onChange={(e) =>
                        form.setValue(`lines.${i}`, {
                          ...line,
                          factor: Number(e.target.value),
                          price: priceOf(item, Number(e.target.value)),
                        })
                      }
                    >
                      {(item?.packs ?? []).map((p) => (
                        <option key={p.id} value={p.factor}>
                          {p.plural} {p.factor > 1 ? `of ${p.factor}` : ''}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td className="num" style={{ width: 96 }}>
                    <input
                      className="input num"
                      inputMode="decimal"
                      aria-label={`Price, line ${i + 1}`}
                      {...form.register(`lines.${i}.price`)}
                    />
                  </td>
                  <td className="num">
                    {sum && base && (
                      <>
                        <b>{countOf(sum.units, base)}</b>
                        <span className="note">at {sum.each} each</span>
                      </>
                    )}
                  </td>
                  <td className="num">{sum ? moneyText(sum.goods, supplier.data?.currency) : ''}</td>
                  <td>
                    <button
                      type="button"
                      aria-label={`Take line ${i + 1} out`}
                      onClick={() => lines.remove(i)}
                      disabled={lines.fields.length === 1}
                    >
                      <Glyph name="shut" />
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <div className="flex items-center justify-between mt-3">
          <button type="button" className="act-link" onClick={() => lines.append({ ...empty })}>
            Another line
          </button>
          <b style={{ fontSize: 18 }}>{moneyText(total, supplier.data?.currency)}</b>
        </div>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button type="submit" className="act act-next" disabled={save.isPending || !watched.some((l) => l.sku && lineSum(l))}>
            Keep the draft <Glyph name="go" size={13} />
          </button>
          {!watched.some((l) => l.sku && lineSum(l)) && <span className="note">One line with goods and a quantity is missing</span>}
        </div>
      </form>
    </Sheet>
  );
}
