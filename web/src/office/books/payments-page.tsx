import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { today } from '../../api/site-day';
import { useAct } from '../../api/use-act';
import { Button, TextButton, TextLink } from '../../ui/button';
import { Field } from '../../ui/field';
import { day } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { MoreRows, useLongList } from '../../ui/long-list';
import { Page, Said } from '../../ui/page';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';
import { BooksWords } from './books-words';

type Row = Dto['PaymentRowDto'];

/** What customers have paid: noted by hand or from the bank's file, and what is for no invoice yet first. */
export function PaymentsPage() {
  const me = useMe();
  const query = useLongList(key('payments'), (window) => ask(api.GET('/api/payments', { params: { query: window } })));
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <Page aria-label="Payments">
      <h1 className="sr">Payments</h1>
      <BooksWords at="payments">
        <TextLink to="/setup/imports">Take in the bank’s file</TextLink>
      </BooksWords>
      <NoteForm money={money} />
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="No payments yet">Note one above, or take in the list that the bank gives out as CSV.</Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <th>Paid on</th>
                  <th className="num">Amount</th>
                  <th>The payer wrote</th>
                  <th>For</th>
                  <th className="num">For none yet</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {rows.map((p) => (
                  <PaymentRow key={p.id} payment={p} money={money} />
                ))}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['payment', 'payments']} />
    </Page>
  );
}

function NoteForm({ money }: { money: (amount: string) => string }) {
  const [paidOn, setPaidOn] = useState(today());
  const [amount, setAmount] = useState('');
  const [says, setSays] = useState('');
  const note = useAct({
    act: (_: void, once) => ask(api.POST('/api/payments', { body: { paidOn, amount, says }, headers: once })),
    onDone: () => {
      setAmount('');
      setSays('');
    },
  });
  return (
    <form
      className="flex flex-wrap gap-x-4 gap-y-2 items-end mb-4"
      aria-label="Note a payment"
      onSubmit={(e) => {
        e.preventDefault();
        note.mutate();
      }}
    >
      <Field label="Paid on">
        <Input type="date" className="w-[150px]" value={paidOn} onChange={(e) => setPaidOn(e.target.value)} />
      </Field>
      <Field label="Amount">
        <Input className="num w-[120px]" inputMode="decimal" value={amount} onChange={(e) => setAmount(e.target.value.trim())} />
      </Field>
      <Field label="The payer wrote">
        <Input
          className="w-[320px]"
          maxLength={300}
          placeholder="numbers of invoices"
          value={says}
          onChange={(e) => setSays(e.target.value)}
        />
      </Field>
      <Button type="submit" disabled={note.isPending || amount === ''}>
        Note it
      </Button>
      {note.data && (
        <Said role="status">
          {note.data.invoices.length > 0 ? `For ${note.data.invoices.join(', ')}` : 'For no invoice yet'}
          {micro(note.data.free) > 0n && note.data.invoices.length > 0 && `; ${money(note.data.free)} are left`}
        </Said>
      )}
      <ProblemNote problem={note.error} />
    </form>
  );
}

function PaymentRow({ payment: p, money }: { payment: Row; money: (amount: string) => string }) {
  const [invoice, setInvoice] = useState('');
  const use = useAct({
    act: (_: void, once) => ask(api.POST('/api/payments/{id}/use', { params: { path: { id: p.id } }, body: { invoice }, headers: once })),
    onDone: () => setInvoice(''),
  });
  const back = useAct({
    act: (_: void, once) => ask(api.POST('/api/payments/{id}/take-back', { params: { path: { id: p.id } }, headers: once })),
  });
  const gain = useAct({
    act: (_: void, once) => ask(api.POST('/api/payments/{id}/gain', { params: { path: { id: p.id } }, headers: once })),
  });
  const isFree = micro(p.free) > 0n;
  return (
    <tr>
      <td>
        <Glyph name={isFree ? (p.free === p.amount ? 'empty' : 'half') : 'full'} size={13} says={isFree ? 'for no invoice yet' : 'used'} />
      </td>
      <td>{day(p.paidOn)}</td>
      <td className="num">{money(p.amount)}</td>
      <td>
        {p.says}
        <span className="note">noted by {p.notedBy}</span>
      </td>
      <td className="code">
        {p.invoices.map((code) => (
          <Link key={code} to={`/books/invoices/${code}`}>
            {code}{' '}
          </Link>
        ))}
      </td>
      <td className="num">
        {isFree && (
          <form
            className="flex gap-3 items-center justify-end"
            onSubmit={(e) => {
              e.preventDefault();
              if (invoice.trim() !== '') use.mutate();
            }}
          >
            {money(p.free)}
            <Input
              className="code w-[110px]"
              aria-label={`Invoice for payment ${p.id}`}
              placeholder="invoice"
              value={invoice}
              onChange={(e) => setInvoice(e.target.value)}
            />
            <Button type="submit" disabled={use.isPending || invoice.trim() === ''}>
              Is for it
            </Button>
          </form>
        )}
        {isFree && p.foreign && (
          <TextButton type="button" disabled={gain.isPending} onClick={() => gain.mutate()}>
            The rest is what the rate did
          </TextButton>
        )}
        <ProblemNote problem={use.error ?? back.error ?? gain.error} />
      </td>
      <td className="num">
        <TextButton type="button" disabled={back.isPending} onClick={() => back.mutate()}>
          Take it back
        </TextButton>
      </td>
    </tr>
  );
}
