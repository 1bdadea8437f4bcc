import { useQuery } from '@tanstack/react-query';
import { ANY_DAY } from '@vectrum/core/buying';
import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { Glyph } from '../../ui/glyph';
import { NumberField, TextField } from '../../ui/record/fields';
import { RowsField } from '../../ui/record/rows-field';
import { type FieldWords, RecordForm } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { atRows, emptyPrice, listed, type PriceRow, priceRows } from './price-list';
import { ShownSheet } from '../../ui/sheet';
import { Input } from '../../ui/input';
import { TextButton } from '../../ui/button';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

interface Values {
  code: string;
  name: string;
  email: string;
  phone: string;
  currency: string;
  leadDays: number;
  terms: string;
  workingDays: string;
  orderDays: string;
  leastValue: string;
  leastUnits: string;
  leastPallets: string;
  contacts: Dto['ContactDto'][];
  priceList: PriceRow[];
}

const fresh: Values = {
  code: '',
  name: '',
  email: '',
  phone: '',
  currency: 'GBP',
  leadDays: 14,
  terms: '',
  workingDays: 'YYYYYNN',
  orderDays: ANY_DAY,
  leastValue: '',
  leastUnits: '',
  leastPallets: '',
  contacts: [],
  priceList: [],
};

function valuesOf(s: Dto['SupplierSheetDto']): Values {
  return {
    code: s.code,
    name: s.name,
    email: s.email,
    phone: s.phone,
    currency: s.currency,
    leadDays: s.leadDays,
    terms: s.terms,
    workingDays: s.workingDays,
    orderDays: s.orderDays,
    contacts: s.contacts,
    leastValue: s.leastValue ?? '',
    leastUnits: s.leastUnits === null ? '' : String(s.leastUnits),
    leastPallets: s.leastPallets === null ? '' : String(s.leastPallets),
    priceList: priceRows(s),
  };
}

const whole = (text: string) => (text.trim() === '' ? null : Number(text));

function bodyOf(v: Values) {
  return {
    code: v.code,
    name: v.name,
    email: v.email,
    phone: v.phone,
    currency: v.currency,
    leadDays: Number(v.leadDays),
    terms: v.terms,
    workingDays: v.workingDays,
    orderDays: v.orderDays,
    leastValue: v.leastValue.trim() || null,
    leastUnits: whole(v.leastUnits),
    leastPallets: whole(v.leastPallets),
    contacts: v.contacts.filter((c) => c.name.trim() !== ''),
    items: listed(v.priceList).map((l) => l.item),
  };
}

/** Makes or changes a supplier: how it trades, whom to ring, its price list. */
export function SupplierForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: key('supplier', code),
    queryFn: () => ask(api.GET('/api/suppliers/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !query.data)
    return (
      <ShownSheet query={query} back="/inbound/suppliers">
        {() => null}
      </ShownSheet>
    );
  return <Form supplier={query.data} />;
}

const daysText = (days: string) => DAYS.filter((_, i) => days[i] === 'Y').join(', ');
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  code: { label: 'Code' },
  name: { label: 'Name' },
  email: { label: 'Mail for orders' },
  phone: { label: 'Phone' },
  currency: { label: 'Currency' },
  leadDays: { label: 'Lead time, days' },
  terms: { label: 'Terms' },
  workingDays: { label: 'Working days', show: daysText },
  orderDays: { label: 'Days to order', show: daysText },
  leastValue: { label: 'Least order, value' },
  leastUnits: { label: 'Least order, units' },
  leastPallets: { label: 'Least order, pallets' },
  contacts: { label: 'People' },
  priceList: { label: 'Price list', show: (list: PriceRow[]) => list.map((r) => `${r.sku} ${r.price} from ${r.from}`).join(', ') },
};

function Form({ supplier }: { supplier: Dto['SupplierSheetDto'] | undefined }) {
  const navigate = useNavigate();
  const record = useRecord<Values, { code: string }>({
    source: { values: supplier ? valuesOf(supplier) : fresh, version: supplier?.version },
    save: async (v, version, once) => {
      const body = bodyOf(v) as never;
      return ask(
        version === undefined
          ? api.POST('/api/suppliers', { body, headers: once })
          : api.PUT('/api/suppliers/{code}', { params: { path: { code: v.code } }, headers: { ...once, ...ifMatch(version) }, body }),
      ).catch((problem: unknown) => {
        throw atRows(problem, listed(v.priceList));
      });
    },
    onSaved: (made) => void navigate(`/inbound/suppliers/${made.code}`),
  });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={supplier ? `inbound/suppliers/${supplier.code}/edit` : 'inbound/suppliers/new'}
      title={supplier ? `Change ${supplier.name}` : 'New supplier'}
      back={supplier ? `/inbound/suppliers/${supplier.code}` : '/inbound/suppliers'}
      keep="Keep the supplier"
    >
      <div className="grid sm:grid-cols-2 gap-4">
        <TextField name="name" label="Name" autoFocus />
        <TextField name="code" label="Code" code readOnly={supplier !== undefined} />
        <TextField name="email" label="Mail for orders" type="email" />
        <TextField name="phone" label="Phone" />
      </div>
      <div className="grid grid-cols-2 sm:grid-cols-[1fr_1fr_2fr] gap-4">
        <TextField name="currency" label="Currency" maxLength={3} />
        <NumberField name="leadDays" label="Lead time, days" />
        <TextField name="terms" label="Terms" placeholder="30 days net" maxLength={80} className="col-span-2 sm:col-span-1" />
        <NumberField name="leastValue" label="Least order, value" placeholder="none" />
        <NumberField name="leastUnits" label="Least order, units" placeholder="none" />
        <NumberField name="leastPallets" label="Least order, pallets" placeholder="none" />
      </div>
      <WeekDays form={record.form} name="workingDays" says="They work on" />
      <WeekDays form={record.form} name="orderDays" says="They take orders on" />
      <Contacts form={record.form} />
      <section aria-label="Price list" className="grid gap-1">
        <span className="note">Price list. A lower price for more packs is a row of its own</span>
        <RowsField
          name="priceList"
          one="price"
          columns={[
            { name: 'sku', label: 'Our SKU', code: true },
            { name: 'factor', label: 'Pack of', num: true, width: 76 },
            { name: 'supplierSku', label: 'Their number', code: true },
            { name: 'from', label: 'From packs', num: true, width: 90 },
            { name: 'price', label: 'Price of a pack', num: true, width: 116 },
          ]}
          blank={emptyPrice}
        />
      </section>
    </RecordForm>
  );
}

function WeekDays({ form, name, says }: { form: UseFormReturn<Values>; name: 'workingDays' | 'orderDays'; says: string }) {
  const days = form.watch(name);
  return (
    <div className="flex gap-4 items-center flex-wrap">
      <span className="note min-w-[130px]">{says}</span>
      {DAYS.map((d, i) => (
        <label key={d} className="flex gap-1 items-center">
          <input
            type="checkbox"
            aria-label={`${says} ${d}`}
            checked={days[i] === 'Y'}
            onChange={(e) => form.setValue(name, [...days].map((x, n) => (n === i ? (e.target.checked ? 'Y' : 'N') : x)).join(''))}
          />{' '}
          {d}
        </label>
      ))}
    </div>
  );
}

function Contacts({ form }: { form: UseFormReturn<Values> }) {
  const contacts = useFieldArray({ control: form.control, name: 'contacts' });
  return (
    <section aria-label="People" className="grid gap-2 justify-items-start">
      {contacts.fields.map((row, i) => (
        <div key={row.id} className="grid gap-2 items-center w-full grid-cols-2 sm:grid-cols-[1.4fr_1.2fr_2fr_1.4fr_24px]">
          <Input aria-label={`Name ${i + 1}`} placeholder="Name" {...form.register(`contacts.${i}.name`)} />
          <Input aria-label={`Role ${i + 1}`} placeholder="Sales" {...form.register(`contacts.${i}.role`)} />
          <Input aria-label={`Mail ${i + 1}`} placeholder="Mail" type="email" {...form.register(`contacts.${i}.email`)} />
          <Input aria-label={`Phone ${i + 1}`} placeholder="Phone" {...form.register(`contacts.${i}.phone`)} />
          <button type="button" aria-label={`Take ${i + 1} out`} onClick={() => contacts.remove(i)}>
            <Glyph name="shut" />
          </button>
        </div>
      ))}
      <TextButton type="button" onClick={() => contacts.append({ name: '', role: '', email: '', phone: '' })}>
        Add somebody to ring
      </TextButton>
    </section>
  );
}
