import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { Acts, BlockHead, Said } from '../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { CLAIM_STATES, isTrouble, travelWord } from './claim-words';

type Claim = Dto['ClaimDto'];
const BACK = '/orders/claims';

/** One parcel in trouble: what its carrier said, what it is worth, and what is claimed for it. */
export function ClaimSheet() {
  const { id = '' } = useParams();
  const query = useQuery({
    queryKey: key('claims', id),
    queryFn: () => ask(api.GET('/api/claims/{id}', { params: { path: { id: Number(id) } } })),
  });
  return (
    <ShownSheet query={query} back={BACK}>
      {(c) => (
        <Sheet address={`orders/claims/${c.id}`} title={`${c.parcel} is ${travelWord(c.kind)}`} about={CLAIM_STATES[c.state]} back={BACK}>
          <Waybill
            cells={[
              {
                cap: 'Order',
                value: <Link to={`/orders/${c.order}`}>{c.order}</Link>,
                note: [c.customer, c.email, c.phone].filter(Boolean).join(', '),
              },
              { cap: 'Carrier', value: c.carrier ?? '', note: c.tracking ?? '' },
              { cap: 'Handed over', value: c.handedOverAt ? when(c.handedOverAt) : '' },
              { cap: 'Sold for', value: c.worth, note: 'what is in it' },
              ...(c.asked ? [{ cap: 'Claimed', value: c.asked }] : []),
              ...(c.paid ? [{ cap: 'Paid', value: c.paid }] : []),
            ]}
          />
          {c.note && <p className="mt-3">{c.note}</p>}
          <Journey events={c.events} />
          {(c.state === 'open' || c.state === 'claimed') && <Settle key={c.version} claim={c} />}
        </Sheet>
      )}
    </ShownSheet>
  );
}

/** What the carrier said, oldest first. */
function Journey({ events }: { events: Claim['events'] }) {
  return (
    <>
      <BlockHead className="mt-4">
        <h2>What the carrier said</h2>
      </BlockHead>
      {events.length === 0 && <p className="note py-2">Nothing so far</p>}
      <ol>
        {events.map((e) => (
          <li key={`${e.at} ${e.what}`} className="flex gap-3 items-center border-b border-rule py-1">
            <Glyph name={isTrouble(e.what) ? 'blocked' : e.what === 'delivered' ? 'full' : 'half'} size={13} />
            <span className={isTrouble(e.what) ? 'stamped' : ''}>{travelWord(e.what)}</span>
            <span className="mid">{e.note}</span>
            <span className="mid ml-auto">{when(e.at)}</span>
          </li>
        ))}
      </ol>
    </>
  );
}

/** What is done about it: claimed, paid, or nothing at all, each with its words. */
function Settle({ claim: c }: { claim: Claim }) {
  const [amount, setAmount] = useState(c.asked ?? c.worth);
  const [note, setNote] = useState('');
  const params = { path: { id: c.id } };
  const act = useAct({
    act: (what: 'ask' | 'settle' | 'drop', once) => {
      const headers = { ...once, ...ifMatch(c.version) };
      if (what === 'drop') return ask(api.POST('/api/claims/{id}/drop', { params, headers, body: { note } }));
      const body = { amount: amount.trim(), note };
      return what === 'ask'
        ? ask(api.POST('/api/claims/{id}/ask', { params, headers, body }))
        : ask(api.POST('/api/claims/{id}/settle', { params, headers, body }));
    },
  });
  const tell = useAct({ act: (_: void, once) => ask(api.POST('/api/claims/{id}/tell', { params, headers: once, body: { note } })) });
  return (
    <>
      <BlockHead className="mt-4">
        <h2>What is done about it</h2>
      </BlockHead>
      <div className="flex gap-3 flex-wrap mt-2">
        <Field label="Amount">
          <Input className="num" style={{ width: 110 }} inputMode="decimal" value={amount} onChange={(e) => setAmount(e.target.value)} />
        </Field>
        <Field label="Note" className="flex-1">
          <Input maxLength={300} value={note} onChange={(e) => setNote(e.target.value)} />
        </Field>
      </div>
      <ProblemNote problem={act.error ?? tell.error} />
      {tell.data && <Said>{tell.data.to} is told</Said>}
      <Acts>
        {c.state === 'open' ? (
          <Button type="button" next disabled={act.isPending} onClick={() => act.mutate('ask')}>
            Claim it from {c.carrier ?? 'the carrier'}
          </Button>
        ) : (
          <Button type="button" next disabled={act.isPending} onClick={() => act.mutate('settle')}>
            It was paid
          </Button>
        )}
        {c.email !== '' && (
          <Button type="button" disabled={tell.isPending} onClick={() => tell.mutate()}>
            Tell the customer
          </Button>
        )}
        <Button type="button" disabled={act.isPending || note.trim() === ''} onClick={() => act.mutate('drop')}>
          Nothing is claimed
        </Button>
      </Acts>
    </>
  );
}
