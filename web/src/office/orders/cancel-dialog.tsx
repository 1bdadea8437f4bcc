import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { plural } from '../../ui/format';
import { Input } from '../../ui/input';
import { ProblemNote, Shown } from '../../ui/states';

type Order = Dto['OrderDto'];
const pieces = (n: number) => plural(n, 'piece', 'pieces');

/** What cancelling takes back, in sentences. */
function Takes({ list, order }: { list: Dto['CancellingDto']; order: Order }) {
  const says = [
    list.promised > 0 && `${pieces(list.promised)} promised to it are free again.`,
    list.toPick > 0 && `Nobody goes for ${pieces(list.toPick)} any more.`,
    ...list.totes.map((t) => `The floor puts ${pieces(t.pieces)} away from tote ${t.place}.`),
    ...list.parcels.map((p) => `Parcel ${p.place} is taken apart: ${pieces(p.pieces)} to put away.`),
    list.labels.length > 0 && `The label of ${list.labels.join(', ')} is given back to its carrier.`,
    list.gone > 0 && `${pieces(list.gone)} have gone and stay gone: only the rest is cancelled.`,
    list.channel !== null && `${list.channel} is told.`,
  ].filter((s): s is string => typeof s === 'string');
  return (
    <ul className="my-2 list-none">
      {(says.length > 0 ? says : [`Nothing is promised to ${order.code} yet.`]).map((s) => (
        <li key={s} className="border-b border-rule py-1">
          {s}
        </li>
      ))}
    </ul>
  );
}

/** Cancels an order: what it takes back is listed first. */
export function CancelDialog({ order, onClose }: { order: Order; onClose: () => void }) {
  const [why, setWhy] = useState('');
  const [tell, setTell] = useState(order.email !== '');
  const query = useQuery({
    queryKey: key('cancelling', order.code),
    queryFn: () => ask(api.GET('/api/orders/{code}/cancelling', { params: { path: { code: order.code } } })),
  });
  const cancel = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/orders/{code}/cancel', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { why, tell: tell && order.email !== '' },
        }),
      ),
    onDone: onClose,
  });
  const faults = cancel.error instanceof ProblemError ? cancel.error.fields : {};
  return (
    <Dialog title={`Cancel ${order.code}`} about={order.customer} onClose={onClose}>
      <Shown query={query}>{(list) => <Takes list={list} order={order} />}</Shown>
      <form
        className="flex flex-col gap-3 mt-3"
        onSubmit={(e) => {
          e.preventDefault();
          cancel.mutate();
        }}
      >
        <Field label="Why" fault={faults['why']}>
          <Input aria-label="Why" autoFocus maxLength={200} value={why} onChange={(e) => setWhy(e.target.value)} />
        </Field>
        {order.email !== '' && (
          <label className="flex gap-2 items-center min-h-6">
            <input type="checkbox" checked={tell} onChange={(e) => setTell(e.target.checked)} /> Tell {order.email}
          </label>
        )}
        <ProblemNote problem={cancel.error} />
        <span className="flex gap-3">
          <Button next disabled={cancel.isPending || why.trim() === '' || query.data?.can !== true}>
            Cancel the order
          </Button>
          <Button type="button" onClick={onClose}>
            Keep it
          </Button>
        </span>
      </form>
    </Dialog>
  );
}
