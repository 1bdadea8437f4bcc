import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input, Select } from '../../ui/input';
import { ProblemNote } from '../../ui/states';

type Order = Dto['OrderDto'];

/** What an order waits for, who sees to it, and what lets it go on. */
export function OrderHolds({ order, may }: { order: Order; may: boolean }) {
  const clear = useAct({
    act: (id: number, once) =>
      ask(
        api.POST('/api/orders/{code}/holds/{id}/clear', {
          params: { path: { code: order.code, id } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { why: '' },
        }),
      ),
  });
  if (order.holds.length === 0) return null;
  return (
    <section aria-label="Held" className="mt-3 border-l-4 border-stamp pl-3 py-1">
      {order.holds.map((h) => (
        <p key={h.id} className="flex gap-3 items-baseline flex-wrap">
          <span className="flex-none self-center">
            <Glyph name="held" size={15} />
          </span>
          <b>{h.reason}</b>
          <span className="note">
            {[h.owner ? `for ${h.owner}` : '', h.setBy ? `held by ${h.setBy}` : '', `since ${when(h.setAt)}`].filter(Boolean).join(', ')}
          </span>
          {may && !h.own && (
            <TextButton type="button" disabled={clear.isPending} onClick={() => clear.mutate(h.id)}>
              Clear it
            </TextButton>
          )}
        </p>
      ))}
      <ProblemNote problem={clear.error} />
    </section>
  );
}

const KINDS = [
  ['payment', 'payment'],
  ['check', 'a check of the customer'],
  ['stock', 'stock'],
  ['other', 'something else'],
] as const;
type Kind = (typeof KINDS)[number][0];

/** Holds an order by hand: what for, and who sees to it. */
export function HoldDialog({ order, onClose }: { order: Order; onClose: () => void }) {
  const [kind, setKind] = useState<Kind>('payment');
  const [reason, setReason] = useState('');
  const [owner, setOwner] = useState('');
  const people = useQuery({ queryKey: key('owners'), queryFn: () => ask(api.GET('/api/order-desk/people')) });
  const hold = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/orders/{code}/holds', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { kind, reason, ownerId: owner ? Number(owner) : null },
        }),
      ),
    onDone: onClose,
  });
  const faults = hold.error instanceof ProblemError ? hold.error.fields : {};
  return (
    <Dialog
      title={`Hold ${order.code}`}
      about="It is not sent to picking, and its parcels stay here, until this is cleared."
      onClose={onClose}
    >
      <form
        className="flex flex-col gap-3 mt-3"
        onSubmit={(e) => {
          e.preventDefault();
          hold.mutate();
        }}
      >
        <Field label="It waits for">
          <Select aria-label="It waits for" value={kind} onChange={(e) => setKind(e.target.value as Kind)}>
            {KINDS.map(([value, says]) => (
              <option key={value} value={value}>
                {says}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="Why" fault={faults['reason']}>
          <Input aria-label="Why" autoFocus maxLength={200} value={reason} onChange={(e) => setReason(e.target.value)} />
        </Field>
        <Field label="Who sees to it" fault={faults['ownerId']}>
          <Select aria-label="Who sees to it" value={owner} onChange={(e) => setOwner(e.target.value)}>
            <option value="">anybody of the order desk</option>
            {people.data?.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </Select>
        </Field>
        <ProblemNote problem={hold.error} />
        <span className="flex gap-3">
          <Button next disabled={hold.isPending || reason.trim() === ''}>
            Hold it
          </Button>
          <Button type="button" onClick={onClose}>
            Leave it
          </Button>
        </span>
      </form>
    </Dialog>
  );
}
