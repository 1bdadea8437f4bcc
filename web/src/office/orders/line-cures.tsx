import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { dayWord, when, whole } from '../../ui/format';
import { ProblemNote, Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';

type Order = Dto['OrderDto'];
type Cure = Dto['CureDto'];

/** What is against a line and what cures it, by the line's number. */
export const useCures = (order: Pick<Order, 'code' | 'state'>) =>
  useQuery({
    queryKey: key('order-cures', order.code),
    queryFn: () => ask(api.GET('/api/orders/{code}/cures', { params: { path: { code: order.code } } })),
    enabled: order.state === 'open' || order.state === 'held',
  });

function CureWords({ cure }: { cure: Cure }) {
  const n = whole(cure.units);
  const place = (
    <Link to={`/shelves/places/${cure.where}`} className="code">
      {cure.where}
    </Link>
  );
  switch (cure.kind) {
    case 'put-away':
      return (
        <>
          {n} to be put away from {place}
        </>
      );
    case 'refill':
      return (
        <>
          {n} to be brought down from {place}
        </>
      );
    case 'count':
      return (
        <>
          {n} held in {place}: count them
        </>
      );
    case 'inspect':
      return (
        <>
          {n} to be inspected in {place}
        </>
      );
    case 'arrival':
    case 'on-the-road':
      return (
        <>
          {n} on{' '}
          <Link to={cure.kind === 'arrival' ? `/inbound/${cure.where}` : `/shelves/transfers/${cure.where}`} className="code">
            {cure.where}
          </Link>
          , <span className={cure.on !== null && cure.on < new Date().toISOString().slice(0, 10) ? 'stamped' : ''}>{dayWord(cure.on)}</span>
        </>
      );
    default:
      return (
        <>
          {n} at {cure.where}
        </>
      );
  }
}

/** Beneath a line: why it cannot be picked yet, what cures it, and the way to take it from another order. */
export function LineCures({ order, line, cures, may }: { order: Order; line: number; cures: Dto['LineCuresDto']; may: boolean }) {
  const [asks, setAsks] = useState(false);
  return (
    <p className="note flex gap-x-3 flex-wrap items-baseline">
      {cures.cures.slice(0, 4).map((c, i) => (
        <span key={i}>
          <CureWords cure={c} />
        </span>
      ))}
      {cures.cures.length === 0 && <span className="stamped">Nothing of it is here or on order</span>}
      {may && cures.lacks > 0 && (
        <TextButton type="button" onClick={() => setAsks(true)}>
          Who holds it
        </TextButton>
      )}
      {asks && <Holders order={order} line={line} onClose={() => setAsks(false)} />}
    </p>
  );
}

/** Who holds what a line lacks, last promised first; whom it would hit is seen before it is taken. */
function Holders({ order, line, onClose }: { order: Order; line: number; onClose: () => void }) {
  const params = { path: { code: order.code, line } };
  const query = useQuery({
    queryKey: key('line-holders', order.code, line),
    queryFn: () => ask(api.GET('/api/orders/{code}/lines/{line}/holders', { params })),
  });
  const take = useAct({
    act: (from: { order: string; line: number; units: number }, once) =>
      ask(api.POST('/api/orders/{code}/lines/{line}/take', { params, headers: { ...once, ...ifMatch(order.version) }, body: from })),
    onDone: onClose,
  });
  return (
    <Dialog title="Who holds it" about={`${order.code}, ${order.customer}. Whoever it is taken from waits for the next.`} onClose={onClose}>
      <ProblemNote problem={take.error} />
      <Shown query={query}>
        {({ lacks, holders }) =>
          holders.length === 0 ? (
            <p className="py-2">No order that nobody picks yet holds any of it.</p>
          ) : (
            <DenseTable className="w-full mt-2">
              <tbody>
                {holders.map((h) => {
                  const units = Math.min(lacks, h.units);
                  return (
                    <tr key={`${h.code}/${h.line}`}>
                      <td className="code">{h.code}</td>
                      <td className="max-w-[120px] overflow-hidden text-ellipsis">{h.customer}</td>
                      <td className="mid">{when(h.promisedAt)}</td>
                      <td className="num">
                        <TextButton
                          type="button"
                          disabled={take.isPending || units === 0}
                          onClick={() => take.mutate({ order: h.code, line: h.line, units })}
                        >
                          Take {whole(units)} of {whole(h.units)}
                        </TextButton>
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <Button type="button" className="mt-3" onClick={onClose}>
        Close
      </Button>
    </Dialog>
  );
}
