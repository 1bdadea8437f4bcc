import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { TextButton } from './button';
import { plural } from './format';

const STEP = 200;
/** Beyond this the server does not count. */
const MOST_COUNTED = 10_000;

interface Page<R> {
  rows: R[];
  total: number;
}
/** What a list is asked for, as a request says it. */
export interface Asked {
  from: string;
  limit: string;
}

/** A list that is read a part at a time, each behind the one before; what has been read is read again when it changes. */
export function useLongList<R, P extends Page<R>>(
  queryKey: readonly unknown[],
  load: (asked: Asked) => Promise<P & Page<R>>,
  more: { refetchInterval?: number | ((list: { rows: R[] } | undefined) => number | false) } = {},
) {
  const { refetchInterval } = more;
  const query = useInfiniteQuery({
    queryKey,
    queryFn: ({ pageParam }) => load({ from: String(pageParam), limit: String(STEP) }),
    initialPageParam: 0,
    getNextPageParam: (last, all) => {
      const read = all.reduce((n, p) => n + p.rows.length, 0);
      return last.rows.length === STEP && read < last.total ? read : undefined;
    },
    placeholderData: keepPreviousData,
    ...(refetchInterval === undefined
      ? {}
      : {
          refetchInterval:
            typeof refetchInterval === 'number'
              ? refetchInterval
              : (q: { state: { data: { pages: P[] } | undefined } }) =>
                  refetchInterval(q.state.data && { rows: q.state.data.pages.flatMap((p) => p.rows) }),
        }),
  });
  const first = query.data?.pages[0];
  const last = query.data?.pages.at(-1);
  return {
    data: first && last ? { ...first, rows: query.data?.pages.flatMap((p) => p.rows) ?? [], total: last.total } : undefined,
    error: query.error,
    isPending: query.isPending,
    refetch: query.refetch,
    more: query.hasNextPage ? { read: () => void query.fetchNextPage(), isReading: query.isFetchingNextPage } : null,
  };
}

/** How much of a list is shown, and a way to the rest; nothing where all of it is. */
export function MoreRows({
  list,
  what,
}: {
  list: { data: { rows: readonly unknown[]; total: number } | undefined; more: { read: () => void; isReading: boolean } | null };
  /** How one of them, and several, are called. */
  what: readonly [string, string];
}) {
  if (!list.data || !list.more) return null;
  const { rows, total } = list.data;
  const all = total > MOST_COUNTED ? `more than ${MOST_COUNTED.toLocaleString('en-GB')} ${what[1]}` : plural(total, what[0], what[1]);
  return (
    <p className="note flex gap-3 items-baseline py-3">
      <span>
        {rows.length.toLocaleString('en-GB')} of {all}
      </span>
      <TextButton type="button" disabled={list.more.isReading} onClick={list.more.read}>
        {list.more.isReading ? 'Reading …' : 'Show more'}
      </TextButton>
    </p>
  );
}
