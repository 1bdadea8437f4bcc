import { useState } from 'react';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { type Once, useAct } from '../../api/use-act';
import { Button, ButtonAnchor, ButtonLink, TextAnchor, TextButton, TextLink } from '../../ui/button';
import { Glyph } from '../../ui/glyph';
import { Acts, Said } from '../../ui/page';
import { ProblemNote } from '../../ui/states';
import { PrintAt } from '../print-at';
import { CancelDialog } from './cancel-dialog';
import { HoldDialog } from './order-holds';
import { SplitDialog } from './split-dialog';

type Order = Dto['OrderDto'];
const OVER = ['shipped', 'cancelled'];
const AT_WORK = ['released', 'picking', 'picked', 'packed'];

/** What can be done with an order, the next thing first. */
export function OrderActs({ order }: { order: Order }) {
  const me = useMe();
  const rights = me.data?.rights ?? [];
  const desk = rights.includes('order-desk');
  const [asks, setAsks] = useState<'hold' | 'cancel' | 'split' | null>(null);
  const headers = (once: Once) => ({ ...once, ...ifMatch(order.version) });
  const params = { path: { code: order.code } };
  const release = useAct({ act: (_: void, once) => ask(api.POST('/api/orders/{code}/release', { params, headers: headers(once) })) });
  const recall = useAct({ act: (_: void, once) => ask(api.POST('/api/orders/{code}/recall', { params, headers: headers(once) })) });
  const confirm = useAct({
    act: (_: void, once) => ask(api.POST('/api/orders/{code}/confirm', { params, headers: headers(once), body: {} })),
  });
  const mail = useAct({ act: (_: void, once) => ask(api.POST('/api/orders/{code}/mail', { params, headers: once })) });
  const { state } = order;
  return (
    <>
      <ProblemNote problem={release.error ?? recall.error ?? confirm.error ?? mail.error} />
      {mail.isSuccess && (
        <Said role="status">
          <Glyph name="go" size={13} /> On its way to {order.email}
        </Said>
      )}
      <Acts>
        {state === 'quote' && desk && (
          <Button type="button" next disabled={confirm.isPending} onClick={() => confirm.mutate()}>
            Make it an order <Glyph name="go" size={13} />
          </Button>
        )}
        {(state === 'open' || order.canFollow) && rights.includes('release') && (
          <Button
            type="button"
            next={state === 'open'}
            disabled={(state === 'open' && order.cannotRelease !== null) || release.isPending}
            onClick={() => release.mutate()}
          >
            {state === 'open' ? 'Send' : 'Send the rest'} to {order.picks ? 'picking' : 'packing'} <Glyph name="go" size={13} />
          </Button>
        )}
        {state === 'picked' && rights.includes('pack') && (
          <ButtonLink next to={`/bench/${order.code}`}>
            Pack it <Glyph name="go" size={13} />
          </ButtonLink>
        )}
        {state === 'released' && rights.includes('pick') && order.round && (
          <ButtonLink next to={`/floor/pick/${order.round}`}>
            Pick it <Glyph name="go" size={13} />
          </ButtonLink>
        )}
        {desk && !OVER.includes(state) && <ButtonLink to={`/orders/${order.code}/edit`}>Change it</ButtonLink>}
        {state === 'quote' || desk ? (
          <ButtonAnchor href={`/api/orders/${order.code}/paper`} target="_blank" rel="noreferrer">
            <Glyph name="print" /> {state === 'quote' ? 'Quote' : 'Confirmation'}
          </ButtonAnchor>
        ) : null}
        {desk && !['quote', 'cancelled'].includes(state) && order.lines.length > 0 && (
          <TextAnchor href={`/api/invoices/proforma/${order.code}`} target="_blank" rel="noreferrer">
            Proforma
          </TextAnchor>
        )}
        {order.parcels.some((p) => p.state === 'gone') && (
          <TextAnchor href={`/api/bench/orders/${order.code}/delivery-note`} target="_blank" rel="noreferrer">
            Delivery note
          </TextAnchor>
        )}
        {order.parcels.some((p) => p.state === 'gone') && <PrintAt paper="delivery-note" code={order.code} says="the delivery note" />}
        {desk && order.email !== '' && state !== 'cancelled' && (
          <TextButton type="button" disabled={mail.isPending} onClick={() => mail.mutate()}>
            Mail it
          </TextButton>
        )}
        {desk && order.lines.some((l) => l.shipped > 0) && (
          <TextLink to={`/orders/returns/new?order=${order.code}`}>Something comes back</TextLink>
        )}
        {(state === 'released' || state === 'picking' || state === 'picked') && rights.includes('release') && (
          <TextButton type="button" disabled={recall.isPending} onClick={() => recall.mutate()}>
            {state === 'picked' && order.picks ? 'Unpick it' : 'Recall it'}
          </TextButton>
        )}
        {desk && (state === 'open' || state === 'held' || AT_WORK.includes(state)) && (
          <TextButton type="button" onClick={() => setAsks('hold')}>
            Hold it
          </TextButton>
        )}
        {desk && (state === 'open' || state === 'held') && order.lines.length > 0 && (
          <TextButton type="button" onClick={() => setAsks('split')}>
            Split it
          </TextButton>
        )}
        {desk && !OVER.includes(state) && (
          <TextButton type="button" onClick={() => setAsks('cancel')}>
            Cancel it
          </TextButton>
        )}
        {state === 'open' && order.cannotRelease && <span className="note">{order.cannotRelease}</span>}
      </Acts>
      {asks === 'hold' && <HoldDialog order={order} onClose={() => setAsks(null)} />}
      {asks === 'split' && <SplitDialog order={order} onClose={() => setAsks(null)} />}
      {asks === 'cancel' && <CancelDialog order={order} onClose={() => setAsks(null)} />}
    </>
  );
}
