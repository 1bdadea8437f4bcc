import { moneyText } from '@vectrum/core/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useFieldArray, useWatch } from 'react-hook-form';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useScanClaim } from '../../../scanner/scan-claim';
import { TextButton } from '../../../ui/button';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { ShownSheet } from '../../../ui/sheet';
import { LinesTable } from '../../../ui/table';
import { KeyedHead } from './keyed-head';
import { KeyedLines } from './keyed-lines';
import { bodyOf, emptyKeyed, freshOrder, type KeyedValues, lineSum, valuesOf } from './keyed-values';

type Order = Dto['OrderDto'];

/** Keys an order or a quote, or changes one. Enter goes on to the next line; a scan puts goods on it. */
export function OrderForm() {
  const { code } = useParams();
  const [params] = useSearchParams();
  const me = useMe();
  const order = useQuery({
    queryKey: key('order', code),
    queryFn: () => ask(api.GET('/api/orders/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !order.data)
    return (
      <ShownSheet query={order} back="/orders">
        {() => null}
      </ShownSheet>
    );
  if (!me.data) return null;
  return <Form order={order.data} fresh={freshOrder(me.data.sites[0]?.id ?? 0, params.has('quote'))} sites={me.data.sites} />;
}

function Form({ order, fresh, sites }: { order: Order | undefined; fresh: KeyedValues; sites: Dto['SiteDto'][] }) {
  const navigate = useNavigate();
  const record = useRecord<KeyedValues, { code: string; floor?: string }>({
    source: { values: order ? valuesOf(order) : fresh, version: order?.version },
    save: (v, version, once) => {
      const body = bodyOf(v, order);
      return ask<{ code: string; floor?: string }>(
        version === undefined
          ? api.POST('/api/orders', {
              body: { ...body, ref: v.ref, quote: v.quote, quotedUntil: (v.quote && v.quotedUntil) || null },
              headers: once,
            })
          : api.PUT('/api/orders/{code}', {
              params: { path: { code: order?.code ?? '' } },
              headers: { ...once, ...ifMatch(version) },
              body: { ...body, why: v.why },
            }),
      );
    },
    onSaved: ({ code, floor }) => void navigate(`/orders/${code}`, { state: { floor } }),
  });
  const { form } = record;
  const lines = useFieldArray({ control: form.control, name: 'lines' });
  const watched = useWatch({ control: form.control, name: 'lines' });
  const [siteId, account, quote] = useWatch({ control: form.control, name: ['siteId', 'account', 'quote'] });
  const [stray, setStray] = useState('');
  useScanClaim((scanned) => {
    void ask(api.GET('/api/look', { params: { query: { code: scanned } } })).then((seen) => {
      const item = seen.item;
      if (!item) return setStray(`${seen.title} is no goods. Scan the label of an item`);
      setStray('');
      const list = form.getValues('lines');
      const at = list.findIndex((l) => l.sku === item.sku && l.factor === 1);
      const was = list[at];
      if (was) return form.setValue(`lines.${at}.quantity`, String(Number(was.quantity || '0') + 1), { shouldDirty: true });
      const next = { ...emptyKeyed, sku: item.sku, quantity: '1' };
      const free = list.findIndex((l) => l.sku === '' && l.line === null);
      if (free >= 0) form.setValue(`lines.${free}`, next, { shouldDirty: true });
      else lines.append(next, { shouldFocus: false });
    });
  });
  const worth = watched.reduce((sum, l) => sum + (lineSum(l)?.goods ?? 0n), 0n);
  const ready = watched.some((l) => l.sku !== '' && lineSum(l));
  const onEnter = (e: React.KeyboardEvent) => {
    if (e.key !== 'Enter' || !(e.target instanceof HTMLInputElement)) return;
    e.preventDefault();
    lines.append({ ...emptyKeyed }, { shouldFocus: false });
  };
  const isAtWork = order !== undefined && !['quote', 'open', 'held'].includes(order.state);
  const what = quote ? 'quote' : 'order';
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={order ? `orders/${order.code}/edit` : 'orders/new'}
      title={order ? `Change ${order.code}` : quote ? 'Write a quote' : 'Key an order'}
      about={isAtWork ? `It is ${order.state}: the floor is told at once, and asked to put away what is wanted no longer` : undefined}
      back={order ? `/orders/${order.code}` : '/orders'}
      keep={order ? 'Keep the changes' : `Keep the ${what}`}
      ready={ready}
      more={ready ? undefined : <span className="note">One line with goods and a quantity is missing</span>}
      wide
    >
      <KeyedHead sites={sites} fixed={order !== undefined} fault={record.fault} />
      {stray && (
        <p role="alert" className="note stamped">
          {stray}
        </p>
      )}
      <LinesTable onKeyDown={onEnter} className="w-full">
        <thead>
          <tr>
            <td />
            <td />
            <th>Goods</th>
            <th className="num">How many</th>
            <th>In</th>
            <th className="num">Price</th>
            <th className="num">Goods</th>
            <td />
          </tr>
        </thead>
        <KeyedLines
          fields={lines.fields}
          asked={{ siteId, account, channel: order?.channelCode ?? '' }}
          fault={record.fault}
          onRemove={lines.remove}
        />
      </LinesTable>
      {record.fault('lines') && <p className="fault">{record.fault('lines')}</p>}
      <div className="flex items-start justify-between">
        <TextButton type="button" onClick={() => lines.append({ ...emptyKeyed }, { shouldFocus: false })}>
          Another line
        </TextButton>
        <b style={{ fontSize: 18 }}>{moneyText(worth)}</b>
      </div>
    </RecordForm>
  );
}

const WORDS: Readonly<Record<keyof KeyedValues, FieldWords>> = {
  account: { label: 'Account' },
  customer: { label: 'Customer' },
  email: { label: 'E-mail' },
  phone: { label: 'Telephone' },
  addressLine: { label: 'Street' },
  city: { label: 'Town' },
  postcode: { label: 'Postcode' },
  country: { label: 'Country' },
  siteId: { label: 'Ships from' },
  ref: { label: 'Their number' },
  promisedAt: { label: 'Promised for', show: (at: string) => at.replace('T', ' ') },
  speed: { label: 'Speed' },
  priority: { label: 'Turn' },
  wholeOnly: { label: 'Goes only whole' },
  notePacker: { label: 'Note to the packer' },
  notePicker: { label: 'Note to the picker' },
  quote: { label: 'Only a quote' },
  quotedUntil: { label: 'Holds until' },
  why: { label: 'Why it is changed' },
  lines: {
    label: 'Lines',
    show: (lines: KeyedValues['lines']) =>
      lines.map((l) => `${l.quantity}${l.factor > 1 ? ` × ${l.factor}` : ''} ${l.sku} at ${l.price}`).join('; '),
  },
};
