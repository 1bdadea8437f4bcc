import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { TextField } from '../../ui/record/fields';
import { RecordForm } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { ShownSheet } from '../../ui/sheet';

type Values = Dto['EditCustomerDto'];

const FRESH: Values = { code: '', name: '', email: '', phone: '', addressLine: '', city: '', postcode: '', country: 'GB', note: '' };
const WORDS: Readonly<Record<keyof Values, { label: string }>> = {
  code: { label: 'Code' },
  name: { label: 'Name' },
  email: { label: 'E-mail' },
  phone: { label: 'Telephone' },
  addressLine: { label: 'Address' },
  city: { label: 'City' },
  postcode: { label: 'Postcode' },
  country: { label: 'Country, two letters' },
  note: { label: 'Note' },
};
const FIELDS = (Object.keys(WORDS) as (keyof Values)[]).filter((name) => name !== 'code');

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
  const record = useRecord({
    source: { values: customer ? pick(customer) : FRESH, version: customer?.version },
    save: (body, version, once) =>
      ask(
        version === undefined
          ? api.POST('/api/customers', { body, headers: once })
          : api.PUT('/api/customers/{code}', { params: { path: { code: body.code } }, headers: { ...once, ...ifMatch(version) }, body }),
      ),
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
    </RecordForm>
  );
}

function pick(c: Dto['CustomerSheetDto']): Values {
  const { version: _, orders: __, ...rest } = c;
  return rest;
}
