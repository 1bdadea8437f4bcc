import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { useFieldArray, useForm, type UseFormReturn } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { Sheet } from '../../ui/sheet';
import { ProblemNote, Shown } from '../../ui/states';
import { listText, readPriceList } from './price-list';

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
  leastValue: string;
  leastUnits: string;
  leastPallets: string;
  contacts: Dto['ContactDto'][];
  priceList: string;
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
  leastValue: '',
  leastUnits: '',
  leastPallets: '',
  contacts: [],
  priceList: '',
};

function valuesOf(s: Dto['SupplierSheetDto']): Values {
  return {
    ...s,
    leastValue: s.leastValue ?? '',
    leastUnits: s.leastUnits === null ? '' : String(s.leastUnits),
    leastPallets: s.leastPallets === null ? '' : String(s.leastPallets),
    priceList: listText(s),
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
    leastValue: v.leastValue.trim() || null,
    leastUnits: whole(v.leastUnits),
    leastPallets: whole(v.leastPallets),
    contacts: v.contacts.filter((c) => c.name.trim() !== ''),
    items: readPriceList(v.priceList),
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
  if (code && !query.data) return <Shown query={query}>{() => null}</Shown>;
  return <Form key={query.data?.version ?? 'new'} supplier={query.data} />;
}

function Form({ supplier }: { supplier: Dto['SupplierSheetDto'] | undefined }) {
  const navigate = useNavigate();
  const form = useForm<Values>({ defaultValues: supplier ? valuesOf(supplier) : fresh });
  const save = useAct({
    act: async (v: Values, once) => {
      const body = bodyOf(v) as never;
      return ask(
        supplier
          ? api.PUT('/api/suppliers/{code}', {
              params: { path: { code: supplier.code } },
              headers: { ...once, ...ifMatch(supplier.version) },
              body,
            })
          : api.POST('/api/suppliers', { body, headers: once }),
      );
    },
    onDone: (made) => {
      void navigate(`/inbound/suppliers/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  const text = (name: keyof Values, more: React.InputHTMLAttributes<HTMLInputElement> = {}) => (
    <input className="input" {...more} {...form.register(name)} />
  );
  return (
    <Sheet
      address={supplier ? `inbound/suppliers/${supplier.code}/edit` : 'inbound/suppliers/new'}
      title={supplier ? `Change ${supplier.name}` : 'New supplier'}
      back="/inbound/suppliers"
    >
      <form className="flex flex-col flex-1 gap-3 mt-3 max-w-[680px]" onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)}>
        <div className="grid grid-cols-2 gap-4">
          <Field label="Name" fault={fields['name']}>
            {text('name', { autoFocus: true })}
          </Field>
          <Field label="Code" fault={fields['code']}>
            {text('code', { readOnly: supplier !== undefined })}
          </Field>
          <Field label="Mail for orders" fault={fields['email']}>
            {text('email', { type: 'email' })}
          </Field>
          <Field label="Phone" fault={fields['phone']}>
            {text('phone')}
          </Field>
        </div>
        <div className="grid gap-4" style={{ gridTemplateColumns: '1fr 1fr 2fr' }}>
          <Field label="Currency" fault={fields['currency']}>
            {text('currency', { maxLength: 3 })}
          </Field>
          <Field label="Lead time, days" fault={fields['leadDays']}>
            {text('leadDays', { inputMode: 'numeric' })}
          </Field>
          <Field label="Terms" fault={fields['terms']}>
            {text('terms', { placeholder: '30 days net', maxLength: 80 })}
          </Field>
          <Field label="Least order, value" fault={fields['leastValue']}>
            {text('leastValue', { inputMode: 'decimal', placeholder: 'none' })}
          </Field>
          <Field label="units" fault={fields['leastUnits']}>
            {text('leastUnits', { inputMode: 'numeric', placeholder: 'none' })}
          </Field>
          <Field label="pallets" fault={fields['leastPallets']}>
            {text('leastPallets', { inputMode: 'numeric', placeholder: 'none' })}
          </Field>
        </div>
        <WorkingDays form={form} />
        <Contacts form={form} />
        <Field
          label="Price list, one a line: SKU, pack of, their code, price of one pack, lower prices as 10=19.20"
          fault={fields['items']}
        >
          <textarea className="input code" style={{ height: 150, padding: 8 }} {...form.register('priceList')} />
        </Field>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the supplier <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}

function WorkingDays({ form }: { form: UseFormReturn<Values> }) {
  const days = form.watch('workingDays');
  return (
    <div className="flex gap-4 items-center flex-wrap">
      <span className="note">They work on</span>
      {DAYS.map((d, i) => (
        <label key={d} className="flex gap-1 items-center">
          <input
            type="checkbox"
            aria-label={`They work on ${d}`}
            checked={days[i] === 'Y'}
            onChange={(e) => form.setValue('workingDays', [...days].map((x, n) => (n === i ? (e.target.checked ? 'Y' : 'N') : x)).join(''))}
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
        <div key={row.id} className="grid gap-2 items-center w-full" style={{ gridTemplateColumns: '1.4fr 1.2fr 2fr 1.4fr 24px' }}>
          <input className="input" aria-label={`Name ${i + 1}`} placeholder="Name" {...form.register(`contacts.${i}.name`)} />
          <input className="input" aria-label={`Role ${i + 1}`} placeholder="Sales" {...form.register(`contacts.${i}.role`)} />
          <input className="input" aria-label={`Mail ${i + 1}`} placeholder="Mail" type="email" {...form.register(`contacts.${i}.email`)} />
          <input className="input" aria-label={`Phone ${i + 1}`} placeholder="Phone" {...form.register(`contacts.${i}.phone`)} />
          <button type="button" aria-label={`Take ${i + 1} out`} onClick={() => contacts.remove(i)}>
            <Glyph name="shut" />
          </button>
        </div>
      ))}
      <button type="button" className="act-link" onClick={() => contacts.append({ name: '', role: '', email: '', phone: '' })}>
        Add somebody to ring
      </button>
    </section>
  );
}
