import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { TextButton } from '../../ui/button';
import { when } from '../../ui/format';
import { BlockHead } from '../../ui/page';
import { Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';

const FIRST = 5;

/** All that happened to an order, newest first, with who and why. */
export function OrderPast({ code }: { code: string }) {
  const [all, setAll] = useState(false);
  const query = useQuery({
    queryKey: key('order-history', code),
    queryFn: () => ask(api.GET('/api/orders/{code}/history', { params: { path: { code } } })),
  });
  return (
    <section aria-label="What happened">
      <BlockHead className="mt-4">
        <h2>What happened</h2>
        {(query.data?.length ?? 0) > FIRST && (
          <TextButton type="button" onClick={() => setAll(!all)}>
            {all ? 'Only the last' : `All ${query.data?.length}`}
          </TextButton>
        )}
      </BlockHead>
      <Shown query={query} rows={3}>
        {(events) => (
          <DenseTable>
            <tbody>
              {(all ? events : events.slice(0, FIRST)).map((e, i) => (
                <tr key={i}>
                  <td className="mid whitespace-nowrap">{when(e.at)}</td>
                  <td className="whitespace-normal">
                    {e.what}
                    {e.detail && <span className="note"> {e.detail}</span>}
                  </td>
                  <td className="mid">{e.who ?? ''}</td>
                </tr>
              ))}
            </tbody>
          </DenseTable>
        )}
      </Shown>
    </section>
  );
}
