import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { Glyph } from '../../ui/glyph';
import { billTotal, emptyCharge, fromCharge, fromGoods, type BilledCharge, type BilledGoods } from './bill-values';
import { today } from '../../api/site-day';
import { SelectField, TextField } from '../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { Select, Input } from '../../ui/input';
import { TextButton } from '../../ui/button';
import { LinesTable } from '../../ui/table';
import { Field } from '../../ui/field';
import { useSuppliers } from '../../api/queries';

interface Values {
  supplier: string;
  ref: string;
  billedOn: string;
  dueOn: string;
  note: string;
  /** What is billed of each line that came, by order and line. */
  goods: Record<string, BilledGoods>;
  charges: BilledCharge[];
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  supplier: { label: 'Supplier' },
  ref: { label: 'Number on the bill' },
  billedOn: { label: 'Of' },
  dueOn: { label: 'Due on' },
  note: { label: 'Note' },
  goods: { label: 'Goods' },
  charges: { label: 'Charges' },
};
const fresh = (): Values => ({ supplier: '', ref: '', billedOn: today(), dueOn: '', note: '', goods: {}, charges: [] });

/** Enters a bill beside what came: take over what fits with one key, or type what the paper says. */
export function BillForm() {
  const navigate = useNavigate();
  const suppliers = useSuppliers();
  const [start] = useState(fresh);
  const record = useRecord<Values, { code: string }>({
    source: { values: start },
    save: ({ goods, charges, dueOn, ...head }, _, once) =>
      ask(
        api.POST('/api/bills', {
          body: {
            ...head,
            dueOn: dueOn || null,
            goods: Object.values(goods).map((g) => ({ order: g.order, line: g.line, units: Number(g.units), amount: g.amount })),
            charges: charges.filter((c) => c.amount !== ''),
          },
          headers: once,
        }),
      ),
    onSaved: ({ code }) => void navigate(`/inbound/bills/${code}`),
  });
  const { watch, setValue } = record.form;
  const [supplier, ref, goods, charges] = watch(['supplier', 'ref', 'goods', 'charges']);
  const [order, setOrder] = useState('');
  const open = useQuery({
    queryKey: key('bills-open', supplier, order),
    queryFn: () => ask(api.GET('/api/bills/open', { params: { query: { supplier, ...(order ? { order } : {}) } } })),
    placeholderData: (was, before) => (before?.queryKey[1] === supplier ? was : undefined),
    enabled: supplier !== '',
  });
  // Another supplier's bill is another bill.
  useEffect(() => {
    setValue('goods', {});
    setValue('charges', []);
  }, [supplier, setValue]);
  const total = billTotal(Object.values(goods), charges);
  const all = () => {
    setValue('goods', Object.fromEntries((open.data?.goods ?? []).map((g) => [`${g.order}/${g.line}`, fromGoods(g)])));
    setValue('charges', (open.data?.charges ?? []).map(fromCharge));
  };
  const ready = total !== 0n && ref.trim() !== '';
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address="inbound/bills/new"
      title="Enter a bill"
      back="/inbound/bills"
      keep={`Enter ${total === 0n ? 'the bill' : moneyText(total, open.data?.currency)}`}
      ready={ready}
      wide
      more={!ready && <span className="note">A number and one line with an amount are missing</span>}
    >
      <div className="grid gap-4 sm:grid-cols-[2fr_1.4fr_1fr_1fr]">
        <SelectField name="supplier" label={WORDS.supplier.label} autoFocus>
          <option value="">Choose one</option>
          {suppliers.data?.map((s) => (
            <option key={s.code} value={s.code}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField name="ref" label={WORDS.ref.label} code maxLength={60} />
        <TextField name="billedOn" label={WORDS.billedOn.label} type="date" />
        <TextField name="dueOn" label={WORDS.dueOn.label} type="date" />
      </div>
      {open.data && (order !== '' || open.data.behind > 0) && (
        <Field
          label={`Goods of one order only${open.data.behind > 0 ? `; ${open.data.behind.toLocaleString('en-GB')} older lines are not shown` : ''}`}
        >
          <Input className="code" maxLength={20} value={order} onChange={(e) => setOrder(e.target.value.trim().toUpperCase())} />
        </Field>
      )}
      {open.data && <GoodsTable open={open.data} goods={goods} onChange={(next) => setValue('goods', next)} onAll={all} />}
      {open.data && <ChargesTable orders={open.data.orders} charges={charges} onChange={(next) => setValue('charges', next)} />}
    </RecordForm>
  );
}

function GoodsTable({
  open,
  goods,
  onChange,
  onAll,
}: {
  open: Dto['OpenToBillDto'];
  goods: Readonly<Record<string, BilledGoods>>;
  onChange: (goods: Record<string, BilledGoods>) => void;
  onAll: () => void;
}) {
  const set = (key: string, next: BilledGoods | null) => {
    const { [key]: _, ...rest } = goods;
    onChange(next ? { ...rest, [key]: next } : rest);
  };
  if (open.goods.length === 0)
    return <p className="note">Nothing of theirs has come that is not billed. A bill can still bring charges.</p>;
  return (
    <>
      <LinesTable>
        <thead>
          <tr>
            <th>Came, not billed</th>
            <th>For</th>
            <th className="num">By the order</th>
            <th className="num">Units billed</th>
            <th className="num">Amount</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {open.goods.map((g) => {
            const key = `${g.order}/${g.line}`;
            const now = goods[key];
            return (
              <tr key={key}>
                <td>
                  <b>{g.name}</b>
                  <span className="note">{g.words}</span>
                </td>
                <td className="code">
                  {g.order}
                  <span className="note">line {g.line}</span>
                </td>
                <td className="num">{moneyText(micro(g.amount), open.currency)}</td>
                <td className="num" style={{ width: 96 }}>
                  <Input
                    className="num"
                    inputMode="numeric"
                    aria-label={`Units billed of ${g.name}`}
                    value={now?.units ?? ''}
                    onChange={(e) => set(key, { ...fromGoods(g), ...now, units: e.target.value.trim() })}
                  />
                </td>
                <td className="num" style={{ width: 110 }}>
                  <Input
                    className="num"
                    inputMode="decimal"
                    aria-label={`Amount billed for ${g.name}`}
                    value={now?.amount ?? ''}
                    onChange={(e) => set(key, { ...fromGoods(g), ...now, amount: e.target.value.trim() })}
                  />
                </td>
                <td>
                  <TextButton type="button" onClick={() => set(key, now ? null : fromGoods(g))}>
                    {now ? 'leave out' : 'as it came'}
                  </TextButton>
                </td>
              </tr>
            );
          })}
        </tbody>
      </LinesTable>
      <TextButton type="button" className="self-start" onClick={onAll}>
        All of it, as it came
      </TextButton>
    </>
  );
}

function ChargesTable({
  orders,
  charges,
  onChange,
}: {
  orders: readonly string[];
  charges: readonly BilledCharge[];
  onChange: (charges: BilledCharge[]) => void;
}) {
  const set = (i: number, next: Partial<BilledCharge>) => onChange(charges.map((c, n) => (n === i ? { ...c, ...next } : c)));
  return (
    <section aria-label="Charges" className="grid gap-2 justify-items-start">
      {charges.map((c, i) => (
        <div key={i} className="flex gap-3 items-center">
          <Input
            style={{ width: 190 }}
            aria-label={`Charge ${i + 1}`}
            maxLength={60}
            value={c.says}
            onChange={(e) => set(i, { says: e.target.value })}
          />
          <span className="note">on</span>
          <Select
            className="code"
            style={{ width: 110 }}
            aria-label={`Order of charge ${i + 1}`}
            value={c.order}
            onChange={(e) => set(i, { order: e.target.value })}
          >
            {[...new Set([c.order, ...orders])].filter(Boolean).map((o) => (
              <option key={o}>{o}</option>
            ))}
          </Select>
          <Input
            className="num"
            style={{ width: 110 }}
            inputMode="decimal"
            aria-label={`Amount of charge ${i + 1}`}
            value={c.amount}
            onChange={(e) => set(i, { amount: e.target.value.trim() })}
          />
          <Select
            style={{ width: 156 }}
            aria-label={`Charge ${i + 1} is shared`}
            value={c.by}
            onChange={(e) => set(i, { by: e.target.value as BilledCharge['by'] })}
          >
            {(['value', 'units', 'weight', 'volume'] as const).map((by) => (
              <option key={by} value={by}>
                shared by {by}
              </option>
            ))}
          </Select>
          <button
            type="button"
            className="grid place-items-center min-w-[28px] min-h-[28px]"
            aria-label={`Take charge ${i + 1} out`}
            onClick={() => onChange(charges.filter((_, n) => n !== i))}
          >
            <Glyph name="shut" />
          </button>
        </div>
      ))}
      <TextButton type="button" onClick={() => onChange([...charges, emptyCharge(orders[0] ?? '')])}>
        Add freight or another charge
      </TextButton>
    </section>
  );
}
