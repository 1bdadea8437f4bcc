import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, ask, type Dto, ProblemError } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { day } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input, Select } from '../../ui/input';
import { Page } from '../../ui/page';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';
import { BooksWords } from './books-words';
import { SumsFoot } from './sums-foot';

type Line = Dto['CheckLineDto'];

/** An invoice before it is posted: each line as ordered beside as delivered, what differs first; freight and discount are typed here. */
export function CheckPage() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const orders = (params.get('orders') ?? '').split(',').filter(Boolean);
  const [typed, setTyped] = useState({ freight: '', freightTax: '', discountPercent: '', note: '' });
  const body = {
    orders,
    note: typed.note,
    ...(typed.freight === '' ? {} : { freight: typed.freight, freightTax: typed.freightTax }),
    ...(typed.discountPercent === '' ? {} : { discountPercent: typed.discountPercent }),
  };
  const query = useQuery({
    queryKey: key('invoice-preview', body),
    queryFn: () => ask(api.POST('/api/invoices/preview', { body })),
    enabled: orders.length > 0,
    placeholderData: (was) => was,
  });
  const taxes = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')) });
  const post = useAct({
    act: (_: void, once) => ask(api.POST('/api/invoices', { body, headers: once })),
    onDone: ({ code }) => void navigate(`/books/invoices/${code}`),
  });
  const put = (name: keyof typeof typed, value: string) => setTyped((was) => ({ ...was, [name]: value }));
  if (orders.length === 0)
    return (
      <Page aria-label="An invoice before it is posted">
        <BooksWords at="open" />
        <h1 className="sr">An invoice before it is posted</h1>
        <Empty title="No orders were chosen">
          Choose them under <Link to="/books">To invoice</Link>.
        </Empty>
      </Page>
    );
  const faults = query.error instanceof ProblemError ? query.error.fields : {};
  return (
    <Page aria-label="An invoice before it is posted">
      <BooksWords at="open" />
      {!query.data && <h1 className="sr">An invoice before it is posted</h1>}
      <Shown query={query.data ? { ...query, error: null } : query}>
        {(p) => (
          <>
            <h1 className="text-title font-bold">{p.customer}</h1>
            <p className="note">
              {p.account && <span className="code">{p.account}, </span>}
              to be paid by {day(p.dueOn)}
              {p.pricesHoldTax && ', prices hold the tax'}
            </p>
            <LinesTable className="mt-3">
              <thead>
                <tr>
                  <td />
                  <th>Goods</th>
                  <th>Order</th>
                  <th className="num">Ordered</th>
                  <th className="num">Delivered</th>
                  <th className="num">On this invoice</th>
                  <th className="num">Price</th>
                  <th>Tax</th>
                  <th className="num">Amount</th>
                </tr>
              </thead>
              <tbody>
                {p.lines.map((l) => (
                  <CheckRow key={`${l.order}/${l.line}`} line={l} currency={p.currency} />
                ))}
              </tbody>
            </LinesTable>
            <div className="flex flex-wrap gap-8 justify-between mt-4">
              <div className="grid gap-3 grid-cols-2 sm:grid-cols-[110px_150px_110px] content-start">
                <Field label="Freight" fault={faults['freight']}>
                  <Input
                    className="num"
                    inputMode="decimal"
                    placeholder="none"
                    value={typed.freight}
                    onChange={(e) => put('freight', e.target.value.trim())}
                  />
                </Field>
                <Field label="Tax on freight" fault={faults['freightTax']}>
                  <Select value={typed.freightTax} onChange={(e) => put('freightTax', e.target.value)}>
                    <option value="">none</option>
                    {(taxes.data?.taxRates ?? []).map((t) => (
                      <option key={t.code} value={t.code}>
                        {t.code}, {t.percent} %
                      </option>
                    ))}
                  </Select>
                </Field>
                <Field label="Discount, %" fault={faults['discountPercent']}>
                  <Input
                    className="num"
                    inputMode="decimal"
                    placeholder="none"
                    value={typed.discountPercent}
                    onChange={(e) => put('discountPercent', e.target.value.trim())}
                  />
                </Field>
                <Field label="Note on the invoice" className="col-span-full">
                  <Input maxLength={300} value={typed.note} onChange={(e) => put('note', e.target.value)} />
                </Field>
              </div>
              <SumsFoot sums={p} currency={p.currency} />
            </div>
            <ProblemNote problem={post.error ?? query.error} />
            <div className="flex flex-wrap gap-4 items-center mt-5">
              <Button type="button" next disabled={post.isPending || query.error !== null} onClick={() => post.mutate()}>
                Post the invoice over {moneyText(micro(p.gross), p.currency)} <Glyph name="go" size={13} />
              </Button>
              {p.inTheirs && p.theirCurrency && <span>{moneyText(micro(p.inTheirs), p.theirCurrency)} to them</span>}
              <span className="note">It gets the next number and goes into the journal. What is wrong later is credited.</span>
            </div>
          </>
        )}
      </Shown>
    </Page>
  );
}

function CheckRow({ line: l, currency }: { line: Line; currency: string }) {
  const isOn = l.toInvoice > 0;
  return (
    <tr className={isOn ? undefined : 'soft'}>
      <td>
        <Glyph name={l.differs === '' ? 'full' : l.delivered > l.ordered ? 'over' : 'half'} size={13} says={l.differs || 'as ordered'} />
      </td>
      <td>
        <Link to={itemPath(l.sku)}>
          <b>{l.name}</b>
        </Link>
        <span className="note code">{l.sku}</span>
      </td>
      <td className="code">
        <Link to={`/orders/${l.order}`}>{l.order}</Link>
      </td>
      <td className="num">{l.orderedWords}</td>
      <td className="num">
        {l.deliveredWords || 'none'}
        {l.differs && <span className="note stamped">{l.differs}</span>}
      </td>
      <td className="num">
        {isOn ? <b>{l.toInvoiceWords}</b> : 'none'}
        {l.invoiced > 0 && <span className="note">{l.invoiced} invoiced before</span>}
      </td>
      <td className="num">
        {moneyText(micro(l.price), currency)}
        <span className="note">a {l.pack}</span>
      </td>
      <td>{l.taxCode ? `${l.taxCode}, ${l.taxPercent} %` : <span className="stamped">none</span>}</td>
      <td className="num">{isOn ? moneyText(micro(l.amount), currency) : ''}</td>
    </tr>
  );
}
