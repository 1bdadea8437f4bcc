import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button, TextAnchor, TextButton } from '../../ui/button';
import { day } from '../../ui/format';
import { Input } from '../../ui/input';
import { Acts } from '../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { LinesTable, NumberCell } from '../../ui/table';
import { SumsFoot } from './sums-foot';
import { PrintAt } from '../print-at';

type Invoice = Dto['InvoiceDto'];

/** An invoice or a credit note: what it says, what is paid of it, how it stands in the journal. */
export function InvoiceSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('invoice', code),
    queryFn: () => ask(api.GET('/api/invoices/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/books/invoices">
      {(v) => (
        <Sheet
          address={`books/invoices/${v.code}`}
          title={v.name}
          about={`${v.kind === 'invoice' ? 'Invoice' : 'Credit note'}, posted ${day(v.postedAt)} by ${v.postedBy}`}
          code={v.code}
          back="/books/invoices"
          print={{ href: `/api/invoices/${v.code}/pdf`, says: v.kind === 'invoice' ? 'Print the invoice' : 'Print the credit note' }}
        >
          <Waybill
            cells={[
              { cap: 'Of', value: day(v.issuedOn), note: v.sentAt ? `sent ${day(v.sentAt)}` : 'not sent by mail' },
              v.kind === 'invoice'
                ? { cap: 'Due', value: day(v.dueOn), note: v.overdue ? <span className="stamped">overdue</span> : '' }
                : { cap: 'For invoice', value: v.credits ? <Link to={`/books/invoices/${v.credits}`}>{v.credits}</Link> : '' },
              {
                cap: 'Open',
                value: moneyText(micro(v.open), v.currency),
                note: [openWords(v), v.shown && `${moneyText(micro(v.shown.open), v.shown.currency)} to them`].filter(Boolean).join(', '),
              },
              { cap: 'Customer', value: v.account ?? 'no account', note: v.email },
            ]}
          />
          <LinesTable>
            <thead>
              <tr>
                <td />
                <th>Goods</th>
                <th>Order</th>
                <th className="num">How many</th>
                <th className="num">Price</th>
                <th>Tax</th>
                <th className="num">Amount</th>
              </tr>
            </thead>
            <tbody>
              {v.lines.map((l) => (
                <tr key={l.line}>
                  <NumberCell>{l.line}</NumberCell>
                  <td>
                    <b>{l.name}</b>
                    <span className="note code">{l.sku}</span>
                  </td>
                  <td className="code">{l.order && <Link to={`/orders/${l.order}`}>{l.order}</Link>}</td>
                  <td className="num">
                    {l.words}
                    {l.credited > 0 && <span className="note stamped">{l.credited} credited</span>}
                  </td>
                  <td className="num">
                    {l.pack && moneyText(micro(l.price), v.currency)}
                    <span className="note">
                      {[l.pack && `a ${l.pack}`, l.discountPercent !== '0' && `less ${l.discountPercent} %`].filter(Boolean).join(', ')}
                    </span>
                  </td>
                  <td>{l.taxCode ? `${l.taxCode}, ${l.taxPercent} %` : 'none'}</td>
                  <td className="num">{moneyText(micro(l.amount), v.currency)}</td>
                </tr>
              ))}
            </tbody>
          </LinesTable>
          <div className="flex justify-between items-start gap-8 mt-3">
            <div className="min-w-[280px]">
              {v.note && <p>{v.note}</p>}
              {v.creditedBy.length > 0 && (
                <p className="note">
                  Credited by{' '}
                  {v.creditedBy.map((c) => (
                    <Link key={c} className="code" to={`/books/invoices/${c}`}>
                      {c}{' '}
                    </Link>
                  ))}
                </p>
              )}
              {v.payments.map((p) => (
                <p key={p.paymentId} className="note">
                  Paid {moneyText(micro(p.amount), v.currency)} on {day(p.paidOn)}
                  {p.says && `: ${p.says}`}
                </p>
              ))}
              <p className="note mt-2">
                {v.entries.map((e, i) => (
                  <span key={i} className="block">
                    {e.debit} to {e.credit} {moneyText(micro(e.amount), v.currency)}
                  </span>
                ))}
              </p>
            </div>
            <div>
              {v.shown && (
                <>
                  <SumsFoot sums={v.shown} currency={v.shown.currency} says={v.kind === 'invoice' ? 'To be paid' : 'Credited'} />
                  <p className="note text-right mt-1 mb-2">
                    1 {v.shown.currency} is {v.shown.rate} {v.currency}; in our books
                  </p>
                </>
              )}
              <SumsFoot sums={v} currency={v.currency} says={v.kind === 'invoice' ? 'To be paid' : 'Credited'} />
            </div>
          </div>
          <InvoiceActs invoice={v} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

function openWords(v: Invoice): string {
  if (micro(v.open) === 0n) return 'settled';
  return v.kind === 'credit' ? 'to be paid back' : v.open === v.gross ? 'nothing paid yet' : 'paid in part';
}

function InvoiceActs({ invoice: v }: { invoice: Invoice }) {
  const [isCrediting, setCrediting] = useState(false);
  const params = { path: { code: v.code } };
  const send = useAct({ act: (_: void, once) => ask(api.POST('/api/invoices/{code}/send', { params, headers: once })) });
  const back = useAct({ act: (_: void, once) => ask(api.POST('/api/invoices/{code}/paid-back', { params, headers: once })) });
  const differ = useAct({ act: (_: void, once) => ask(api.POST('/api/invoices/{code}/exchange-difference', { params, headers: once })) });
  const isBusy = send.isPending || back.isPending || differ.isPending;
  const left = v.lines.some((l) => l.credited < l.units);
  return (
    <>
      {isCrediting && <CreditForm invoice={v} onDone={() => setCrediting(false)} />}
      <ProblemNote problem={send.error ?? back.error ?? differ.error} />
      <Acts>
        <Button type="button" next={v.sentAt === null} disabled={isBusy} onClick={() => send.mutate()}>
          {v.sentAt ? 'Send it again' : 'Send it by mail'}
        </Button>
        {v.kind === 'credit' && micro(v.open) < 0n && (
          <Button type="button" disabled={isBusy} onClick={() => back.mutate()}>
            {moneyText(-micro(v.open), v.currency)} was paid back
          </Button>
        )}
        {v.kind === 'invoice' && v.shown && v.payments.length > 0 && micro(v.open) > 0n && (
          <Button type="button" disabled={isBusy} onClick={() => differ.mutate()}>
            The rest is what the rate did
          </Button>
        )}
        {v.kind === 'invoice' && left && !isCrediting && (
          <Button type="button" onClick={() => setCrediting(true)}>
            Credit some of it
          </Button>
        )}
        <PrintAt paper="invoice" code={v.code} says="it" />
        <TextAnchor href={`/api/invoices/${v.code}/xml`} download>
          UBL
        </TextAnchor>
      </Acts>
    </>
  );
}

/** Which lines are credited, how many units of each, and why. */
function CreditForm({ invoice: v, onDone }: { invoice: Invoice; onDone: () => void }) {
  const navigate = useNavigate();
  const [units, setUnits] = useState<Record<number, string>>({});
  const [reason, setReason] = useState('');
  const [again, setAgain] = useState(false);
  const lines = Object.entries(units).flatMap(([line, n]) => (/^[1-9]\d*$/.test(n) ? [{ line: Number(line), units: Number(n) }] : []));
  const credit = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/invoices/{code}/credit', { params: { path: { code: v.code } }, headers: once, body: { reason, again, lines } })),
    onDone: ({ code }) => {
      onDone();
      void navigate(`/books/invoices/${code}`);
    },
  });
  const open = v.lines.filter((l) => l.credited < l.units);
  return (
    <section aria-label="Credit" className="border-[1.5px] border-ink px-3 py-3 mt-4 grid gap-3">
      <LinesTable>
        <thead>
          <tr>
            <th>Goods</th>
            <th className="num">Not credited</th>
            <th className="num">Credit, units</th>
          </tr>
        </thead>
        <tbody>
          {open.map((l) => (
            <tr key={l.line}>
              <td>{l.name}</td>
              <td className="num">{l.units - l.credited}</td>
              <td className="num" style={{ width: 120 }}>
                <Input
                  className="num"
                  inputMode="numeric"
                  aria-label={`Credit of line ${l.line}`}
                  placeholder="none"
                  value={units[l.line] ?? ''}
                  onChange={(e) => setUnits((was) => ({ ...was, [l.line]: e.target.value.replace(/\D/g, '') }))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <div className="flex flex-wrap gap-4 items-center">
        <TextButton type="button" onClick={() => setUnits(Object.fromEntries(open.map((l) => [l.line, String(l.units - l.credited)])))}>
          All of it
        </TextButton>
        <Input
          className="flex-1 min-w-[180px]"
          aria-label="Why it is credited"
          placeholder="why it is credited"
          maxLength={300}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
        <label className="flex gap-2 items-center">
          <input type="checkbox" checked={again} onChange={(e) => setAgain(e.target.checked)} /> it may be invoiced again
        </label>
        <Button type="button" disabled={credit.isPending || lines.length === 0 || reason.trim() === ''} onClick={() => credit.mutate()}>
          Post the credit note
        </Button>
        <TextButton type="button" onClick={onDone}>
          Leave it
        </TextButton>
      </div>
      <ProblemNote problem={credit.error} />
    </section>
  );
}
