import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { TextButton } from '../../ui/button';
import { plural, when } from '../../ui/format';
import { ProblemNote } from '../../ui/states';

/** Other orders of the same customer that could travel with this one. */
export function OrderSiblings({ order }: { order: Pick<Dto['OrderDto'], 'code' | 'version'> }) {
  const params = { path: { code: order.code } };
  const query = useQuery({
    queryKey: key('siblings', order.code),
    queryFn: () => ask(api.GET('/api/orders/{code}/siblings', { params })),
  });
  const merge = useAct({
    act: (other: string, once) =>
      ask(api.POST('/api/orders/{code}/merge', { params, headers: { ...once, ...ifMatch(order.version) }, body: { other } })),
  });
  const list = query.data ?? [];
  if (list.length === 0) return null;
  return (
    <section aria-label="Could travel with it" className="mt-3">
      {list.map((s) => (
        <p key={s.code} className="flex gap-3 items-baseline note">
          <Link to={`/orders/${s.code}`} className="code">
            {s.code}
          </Link>
          of the same customer, {plural(s.lines, 'line', 'lines')}, promised {when(s.promisedAt)}
          <TextButton type="button" disabled={merge.isPending} onClick={() => merge.mutate(s.code)}>
            Make it one with this
          </TextButton>
        </p>
      ))}
      <ProblemNote problem={merge.error} />
    </section>
  );
}
