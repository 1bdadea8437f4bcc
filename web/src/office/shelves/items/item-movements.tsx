import { useInfiniteQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { api, ask } from '../../../api/client';
import { ExportLinks } from '../../../ui/export-links';
import { clock, day, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Skeleton } from '../../../ui/states';
import { BlockHead } from '../../../ui/page';
import { PictureOf } from '../../../ui/picture-of';
import { DenseTable } from '../../../ui/table';
import { Button } from '../../../ui/button';

/** Everything that ever moved, newest first, read on as far as anybody asks. */
export function ItemMovements({ sku }: { sku: string }) {
  const query = useInfiniteQuery({
    queryKey: key('movements', sku),
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      ask(api.GET('/api/items/{sku}/movements', { params: { path: { sku }, query: pageParam ? { before: pageParam } : {} } })),
    getNextPageParam: (page) => page.before ?? undefined,
  });
  const rows = query.data?.pages.flatMap((p) => p.rows) ?? [];
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Movements</h2>
        <span className="note flex gap-4">
          newest first <ExportLinks list="movements" query={{ sku }} />
        </span>
      </BlockHead>
      {query.isPending && <Skeleton rows={6} />}
      <ProblemNote problem={query.error} onRetry={() => void query.refetch()} />
      {query.data && rows.length === 0 && <Empty title="Nothing has moved yet">Receive it, or take in opening stock.</Empty>}
      <DenseTable>
        <tbody>
          {rows.map((m) => (
            <tr key={m.id}>
              <td className="mid">
                {day(m.at)} {clock(m.at)}
              </td>
              <td className="num strong">{whole(m.units)}</td>
              <td>
                <span className="code">{m.from}</span> <Glyph name="go" size={10} says="to" /> <span className="code">{m.to}</span>
              </td>
              <td className="mid">
                {m.reverses ? 'undone' : m.task}
                {m.condition !== 'good' && `, ${m.condition}`}
                {m.reason && `: ${m.reason}`} {m.picture && <PictureOf act={m.picture} />}
              </td>
              <td className="code">{m.lot}</td>
              <td className="code">{m.document}</td>
              <td className="mid">{m.who}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
      {query.hasNextPage && (
        <Button type="button" className="self-start mt-3" disabled={query.isFetchingNextPage} onClick={() => void query.fetchNextPage()}>
          Read further back
        </Button>
      )}
    </>
  );
}
