import { useQuery } from '@tanstack/react-query';
import { useFormContext, useWatch } from 'react-hook-form';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { Field } from '../../../ui/field';
import { Input, Select } from '../../../ui/input';
import { CheckField, SelectField, TextField } from '../../../ui/record/fields';
import { SearchField } from '../../../ui/search-field';
import type { KeyedValues } from './keyed-values';

/** Who an order is for, where it goes and by when. A customer with an account brings their address, terms and prices along. */
export function KeyedHead({
  sites,
  fixed,
  fault,
}: {
  sites: readonly { id: number; name: string }[];
  /** An order that is there already: its number and site stay. */
  fixed: boolean;
  fault: (field: string) => string | undefined;
}) {
  const form = useFormContext<KeyedValues>();
  const [customer, account, quote] = useWatch({ control: form.control, name: ['customer', 'account', 'quote'] });
  const found = useQuery({
    queryKey: key('customers-found', customer),
    queryFn: () => ask(api.GET('/api/customers', { params: { query: { search: customer, limit: '8' } } })),
    enabled: customer.trim().length > 1 && account === '',
    placeholderData: (was) => was,
  });
  const sheet = useQuery({
    queryKey: key('customer', account),
    queryFn: () => ask(api.GET('/api/customers/{code}', { params: { path: { code: account } } })),
    enabled: account !== '',
  });
  const put = (values: Partial<KeyedValues>) => {
    for (const [name, value] of Object.entries(values)) form.setValue(name as keyof KeyedValues, value, { shouldDirty: true });
  };
  const places = sheet.data ? [{ ...sheet.data, name: 'Their own address' }, ...sheet.data.addresses] : [];
  return (
    <>
      <div className="grid gap-x-4 gap-y-2 grid-cols-2 lg:grid-cols-[2fr_1.2fr_1.3fr_1fr]">
        <Field label="Customer" fault={fault('customer') ?? fault('account')}>
          <SearchField
            label="Customer"
            autoFocus={!fixed}
            value={customer}
            placeholder="a name, or the code of an account"
            invalid={fault('customer') !== undefined}
            found={account === '' ? (found.data?.rows ?? []).map((c) => ({ value: c.code, title: c.name })) : []}
            onType={(text) => put({ customer: text, account: '' })}
            onTake={({ value }) => {
              const c = found.data?.rows.find((r) => r.code === value);
              if (!c) return;
              const { name, email, phone, addressLine, city, postcode, country, wholeOnly } = c;
              put({ account: c.code, customer: name, email, phone, addressLine, city, postcode, country, wholeOnly });
            }}
          />
        </Field>
        <TextField name="email" label="E-mail" />
        <TextField name="phone" label="Telephone" />
        {!fixed && <TextField name="ref" label="Their number" code />}
        {fixed && <TextField name="why" label="Why it is changed" placeholder="for the history" />}
      </div>
      <div className="grid gap-x-4 gap-y-2 grid-cols-2 lg:grid-cols-[1.2fr_2fr_1.2fr_1fr_64px]">
        <Field label="Send to">
          <Select
            aria-label="Send to"
            disabled={places.length === 0}
            value=""
            onChange={(e) => {
              const place = places[Number(e.target.value)];
              if (place) put({ addressLine: place.addressLine, city: place.city, postcode: place.postcode, country: place.country });
            }}
          >
            <option value="">{places.length > 0 ? 'Choose' : 'as typed'}</option>
            {places.map((p, i) => (
              <option key={p.name} value={i}>
                {p.name}
              </option>
            ))}
          </Select>
        </Field>
        <TextField name="addressLine" label="Street" />
        <TextField name="city" label="Town" />
        <TextField name="postcode" label="Postcode" />
        <TextField name="country" label="Country" maxLength={2} />
      </div>
      <div className="grid gap-x-4 gap-y-2 grid-cols-2 lg:grid-cols-[1.1fr_1.7fr_1fr_1.1fr]">
        <SelectField name="siteId" label="Ships from">
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <Field label="Promised for" fault={fault('promisedAt')}>
          <Input type="datetime-local" aria-label="Promised for" {...form.register('promisedAt')} />
        </Field>
        <SelectField name="speed" label="Speed">
          {['standard', 'express', 'economy', 'collected'].map((s) => (
            <option key={s} value={s}>
              {s}
            </option>
          ))}
        </SelectField>
        <SelectField name="priority" label="Turn">
          <option value="0">in its turn</option>
          <option value="3">sooner</option>
          <option value="9">first of all</option>
          <option value="-3">later</option>
        </SelectField>
      </div>
      <div className="grid gap-x-4 gap-y-2 lg:grid-cols-2">
        <TextField name="notePacker" label="Note to the packer" maxLength={300} />
        <TextField name="notePicker" label="Note to the picker" maxLength={300} />
      </div>
      <div className="flex gap-6 items-center flex-wrap">
        <CheckField name="wholeOnly" label="Goes only whole" />
        {!fixed && <CheckField name="quote" label="Only a quote" />}
        {quote && (
          <label className="flex gap-2 items-center">
            holds until
            <Input type="date" className="w-[150px]" disabled={fixed} {...form.register('quotedUntil')} />
          </label>
        )}
      </div>
    </>
  );
}
