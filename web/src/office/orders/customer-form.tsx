import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { BlockHead } from '../../ui/page';
import { CheckField, NumberField, SelectField, TextField } from '../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../ui/record/record-form';
import { RowsField } from '../../ui/record/rows-field';
import { useRecord } from '../../ui/record/use-record';
import { ShownSheet } from '../../ui/sheet';

type Body = Dto['EditCustomerDto'];
/** Numbers are text while they are written. */
interface Values extends Omit<Body, 'termsDays' | 'prices'> {
  termsDays: string;
  prices: { sku: string; factor: string; price: string }[];
}

const FRESH: Values = {
  code: '',
  name: '',
  email: '',
  phone: '',
  addressLine: '',
  city: '',
  postcode: '',
  country: 'GB',
  note: '',
  termsDays: '30',
  taxCode: '',
  taxNumber: '',
  currency: '',
  wholeOnly: false,
  addresses: [],
  prices: [],
};
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  code: { label: 'Code' },
  name: { label: 'Name' },
  email: { label: 'E-mail' },
  phone: { label: 'Telephone' },
  addressLine: { label: 'Address' },
  city: { label: 'City' },
  postcode: { label: 'Postcode' },
  country: { label: 'Country, two letters' },
  note: { label: 'Note' },
  termsDays: { label: 'Pays within days' },
  taxCode: { label: 'Taxed at, where not as the goods' },
  taxNumber: { label: 'Tax number' },
  currency: { label: 'Invoiced in' },
  wholeOnly: { label: 'Their orders go only whole' },
  addresses: { label: 'Other places', show: (list: Values['addresses']) => list.map((a) => a.name).join(', ') },
  prices: { label: 'Own prices', show: (list: Values['prices']) => list.map((p) => `${p.sku} ${p.price}`).join(', ') },
};
const FIELDS = ['name', 'email', 'phone', 'addressLine', 'city', 'postcode', 'country', 'note'] as const;

const bodyOf = (v: Values): Body => ({
  ...v,
  termsDays: Number(v.termsDays),
  taxCode: v.taxCode || null,
  currency: v.currency || null,
  prices: v.prices.map((p) => ({ ...p, factor: Number(p.factor) })),
});

/** Makes or changes a customer. */
export function CustomerForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: key('customer', code),
    queryFn: () => ask(api.GET('/api/customers/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !query.data)
    return (
      <ShownSheet query={query} back="/orders/customers">
        {() => null}
      </ShownSheet>
    );
  return <Form customer={query.data} />;
}

function Form({ customer }: { customer: Dto['CustomerSheetDto'] | undefined }) {
  const navigate = useNavigate();
  const money = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')), staleTime: 60_000 });
  const record = useRecord<Values, { code: string }>({
    source: { values: customer ? pick(customer) : FRESH, version: customer?.version },
    save: (values, version, once) => {
      const body = bodyOf(values);
      return ask(
        version === undefined
          ? api.POST('/api/customers', { body, headers: once })
          : api.PUT('/api/customers/{code}', { params: { path: { code: body.code } }, headers: { ...once, ...ifMatch(version) }, body }),
      );
    },
    onSaved: (made) => void navigate(`/orders/customers/${made.code}`),
  });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={customer ? `customers/${customer.code}/edit` : 'customers/new'}
      title={customer ? `Change ${customer.name}` : 'New customer'}
      back={customer ? `/orders/customers/${customer.code}` : '/orders/customers'}
      keep="Keep the customer"
    >
      <TextField name="code" label={WORDS.code.label} code autoFocus={!customer} readOnly={customer !== undefined} />
      {FIELDS.map((name) => (
        <TextField key={name} name={name} label={WORDS[name].label} />
      ))}
      <NumberField name="termsDays" label="Pays within days" className="max-w-[160px]" />
      <TextField name="taxNumber" label={WORDS.taxNumber.label} maxLength={30} />
      <SelectField name="taxCode" label={WORDS.taxCode.label} className="max-w-[260px]">
        <option value="">as the goods</option>
        {(money.data?.taxRates ?? []).map((t) => (
          <option key={t.code} value={t.code}>
            {t.code}, {t.percent} %
          </option>
        ))}
      </SelectField>
      <SelectField name="currency" label={WORDS.currency.label} className="max-w-[260px]">
        <option value="">the house’s money</option>
        {(money.data?.currencies ?? []).map((c) => (
          <option key={c.code} value={c.code}>
            {c.code}
          </option>
        ))}
      </SelectField>
      <CheckField name="wholeOnly" label="Their orders go only whole" />
      <BlockHead>
        <h2>Other places they have goods sent to</h2>
      </BlockHead>
      <RowsField
        name="addresses"
        one="place"
        columns={[
          { name: 'name', label: 'Called' },
          { name: 'addressLine', label: 'Street' },
          { name: 'city', label: 'Town' },
          { name: 'postcode', label: 'Postcode', width: 110 },
          { name: 'country', label: 'Country', width: 64 },
        ]}
        blank={{ name: '', addressLine: '', city: '', postcode: '', country: 'GB' }}
      />
      <BlockHead>
        <h2>Prices of their own</h2>
      </BlockHead>
      <RowsField
        name="prices"
        one="price"
        columns={[
          { name: 'sku', label: 'SKU', code: true },
          { name: 'factor', label: 'Pieces in one', num: true, width: 110 },
          { name: 'price', label: 'Price of one', num: true, width: 120 },
        ]}
        blank={{ sku: '', factor: '1', price: '' }}
      />
    </RecordForm>
  );
}

function pick(c: Dto['CustomerSheetDto']): Values {
  const { version: _, orders: __, ...rest } = c;
  return {
    ...rest,
    termsDays: String(c.termsDays),
    taxCode: c.taxCode ?? '',
    currency: c.currency ?? '',
    prices: c.prices.map((p) => ({ sku: p.sku, factor: String(p.factor), price: p.price.replace(/(\.\d\d)0+$/, '$1') })),
  };
}
