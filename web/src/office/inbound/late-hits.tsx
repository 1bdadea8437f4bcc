import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { plural, when } from '../../ui/format';
import { Input } from '../../ui/input';
import { BlockHead, Said } from '../../ui/page';
import { ProblemNote, Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';

const DAY_MS = 86_400_000;
const isoDay = (at: number) => new Date(at).toISOString().slice(0, 10);

/** A week after it is expected, or after today where that has passed. */
const weekAfter = (expectedOn: string | null) => isoDay(Math.max(Date.parse(expectedOn ?? '') || 0, Date.now()) + 7 * DAY_MS);

/** What changes if a purchase order comes later: whose promises it breaks, whom to ring, and a letter to each. */
export function LateHits({ order }: { order: Pick<Dto['PurchaseOrderDto'], 'code' | 'expectedOn'> }) {
  const me = useMe();
  const [on, setOn] = useState(() => weekAfter(order.expectedOn));
  const query = useQuery({
    queryKey: key('arrival-hits', order.code, on),
    queryFn: () => ask(api.GET('/api/purchase-orders/{code}/hits', { params: { path: { code: order.code }, query: { on } } })),
    enabled: on !== '',
  });
  const hits = query.data ?? [];
  const letters = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/purchase-orders/{code}/letters', {
          params: { path: { code: order.code } },
          headers: once,
          body: { on, orders: hits.filter((h) => h.email).map((h) => h.code) },
        }),
      ),
  });
  const rights = me.data?.rights ?? [];
  if (!rights.includes('order-desk') && !rights.includes('buy')) return null;
  const mailed = hits.filter((h) => h.email).length;
  return (
    <section aria-label="If it comes later">
      <BlockHead className="mt-4">
        <h2>If it comes later</h2>
        <label className="flex gap-2 items-center note">
          comes on <Input type="date" aria-label="Comes on" className="w-[140px]" value={on} onChange={(e) => setOn(e.target.value)} />
        </label>
      </BlockHead>
      <Shown query={query} rows={2}>
        {(list) =>
          list.length === 0 ? (
            <p className="mid py-2">No promise is broken by that.</p>
          ) : (
            <DenseTable className="w-full">
              <thead>
                <tr>
                  <th>Order</th>
                  <th>Customer</th>
                  <th>Promised</th>
                  <th>Could go</th>
                  <th>Ring</th>
                </tr>
              </thead>
              <tbody>
                {list.map((h) => (
                  <tr key={h.code}>
                    <td className="code">
                      <Link to={`/orders/${h.code}`}>{h.code}</Link>
                    </td>
                    <td className="max-w-[150px] overflow-hidden text-ellipsis">{h.customer}</td>
                    <td>{when(h.promisedAt)}</td>
                    <td className="stamped">{h.freeAt ? when(h.freeAt) : 'not known'}</td>
                    <td className="mid max-w-[150px] overflow-hidden text-ellipsis">{h.phone || h.email || 'no number'}</td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <ProblemNote problem={letters.error} />
      {letters.data && (
        <Said role="status">
          {plural(letters.data.written, 'letter', 'letters')} on the way
          {letters.data.toRing > 0 && `, ${letters.data.toRing} to ring`}
        </Said>
      )}
      {mailed > 0 && rights.includes('order-desk') && !letters.data && (
        <Button type="button" className="mt-2" disabled={letters.isPending} onClick={() => letters.mutate()}>
          Write to {mailed === 1 ? 'them' : `all ${mailed}`}
        </Button>
      )}
    </section>
  );
}
