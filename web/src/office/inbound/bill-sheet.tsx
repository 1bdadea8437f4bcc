import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { day } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { BILL_STATES } from './bills-page';
import { NumberCell, GlyphCell, LinesTable } from '../../ui/table';
import { Acts } from '../../ui/page';
import { Button } from '../../ui/button';
import { Input } from '../../ui/input';

type Bill = Dto['BillDto'];
type Line = Dto['BillLineDto'];

/** How a line stands, in words: what it was to be, and by how much it differs. */
export function findingWords(l: Line, currency: string): string {
  const by = moneyText(micro(l.difference.replace('-', '')), currency);
  switch (l.finding) {
    case 'fits':
      return 'fits';
    case 'late':
      return 'not on the order; shared over its goods';
    case 'too many':
      return `${l.overWords ?? ''} more than came`;
    case 'dearer':
      return `${by} more than ordered`;
    default:
      return `${by} less than ordered`;
  }
}

const glyph = (finding: string): GlyphName => (finding === 'fits' || finding === 'late' ? 'full' : 'blocked');

function LineRow({ line: l, currency }: { line: Line; currency: string }) {
  const wrong = l.finding !== 'fits' && l.finding !== 'late';
  return (
    <tr>
      <NumberCell>{l.line}</NumberCell>
      <td>
        <b>{l.name}</b>
        <span className="note">{l.words ?? `shared by ${l.sharedBy ?? ''}`}</span>
      </td>
      <td>
        <Link to={`/inbound/${l.order}`} className="code">
          {l.order}
        </Link>
        {l.orderLine !== null && <span className="note">line {l.orderLine}</span>}
      </td>
      <td className="num">{micro(l.expected) === 0n ? '' : moneyText(micro(l.expected), currency)}</td>
      <td className="num">
        <b>{moneyText(micro(l.amount), currency)}</b>
      </td>
      <GlyphCell>
        <Glyph name={glyph(l.finding)} size={15} says />
      </GlyphCell>
      <td>
        <span className={wrong ? 'stamped' : ''}>{findingWords(l, currency)}</span>
      </td>
    </tr>
  );
}

function Settle({ bill }: { bill: Bill }) {
  const [note, setNote] = useState('');
  const settle = useAct({
    act: (says: 'accept' | 'query', once) =>
      ask(
        api.POST('/api/bills/{code}/settle', {
          params: { path: { code: bill.code } },
          headers: { ...once, ...ifMatch(bill.version) },
          body: { says, note },
        }),
      ),
  });
  return (
    <>
      <ProblemNote problem={settle.error} />
      <Acts>
        <Button type="button" next disabled={settle.isPending} onClick={() => settle.mutate('accept')}>
          Post it as billed <Glyph name="go" size={13} />
        </Button>
        <Input
          style={{ width: 300 }}
          aria-label="What to ask the supplier"
          placeholder="or say what is wrong with it"
          maxLength={300}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="button" disabled={settle.isPending || note.trim() === ''} onClick={() => settle.mutate('query')}>
          Ask by mail
        </Button>
      </Acts>
    </>
  );
}

function Entries({ entries, home }: { entries: Bill['entries']; home: string }) {
  if (entries.length === 0) return null;
  return (
    <LinesTable aria-label="What it did to the books">
      <thead>
        <tr>
          <th>In the books</th>
          <td />
          <th>Item</th>
          <th className="num">{home}</th>
        </tr>
      </thead>
      <tbody>
        {entries.map((e, i) => (
          <tr key={i}>
            <td>{e.debit}</td>
            <td>
              <span className="note">against {e.credit}</span>
            </td>
            <td className="code">{e.sku ?? ''}</td>
            <td className="num">{moneyText(micro(e.amount), home)}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

/** One bill, each line beside its order and what came; what it did to stock and to the cost of goods gone. */
export function BillSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({ queryKey: key('bill', code), queryFn: () => ask(api.GET('/api/bills/{code}', { params: { path: { code } } })) });
  return (
    <ShownSheet query={query} back="/inbound/bills">
      {(b) => (
        <Sheet
          address={`inbound/bills/${b.code}`}
          title={b.supplier}
          about={`Bill ${b.ref}, entered ${day(b.enteredAt)} by ${b.enteredBy}`}
          back="/inbound/bills"
        >
          <Waybill
            cells={[
              {
                cap: 'State',
                value: BILL_STATES[b.state] ?? b.state,
                note: b.postedAt ? `${day(b.postedAt)} by ${b.postedBy ?? ''}` : b.note,
              },
              { cap: 'Of', value: day(b.billedOn), note: b.dueOn ? `due ${day(b.dueOn)}` : '' },
              {
                cap: 'Total',
                value: moneyText(micro(b.total), b.currency),
                note: Number(b.rate) === 1 ? '' : `at ${b.rate.replace(/0+$/, '')}`,
              },
            ]}
          />
          <LinesTable>
            <thead>
              <tr>
                <td />
                <th>Billed</th>
                <th>For</th>
                <th className="num">By the order</th>
                <th className="num">Billed</th>
                <td />
                <td />
              </tr>
            </thead>
            <tbody>
              {b.lines.map((l) => (
                <LineRow key={l.line} line={l} currency={b.currency} />
              ))}
            </tbody>
          </LinesTable>
          <Entries entries={b.entries} home={me.data?.homeCurrency ?? 'GBP'} />
          {b.state !== 'posted' && <Settle bill={b} />}
        </Sheet>
      )}
    </ShownSheet>
  );
}
