import { useQueries } from '@tanstack/react-query';
import { useCallback, useState } from 'react';

export const WINDOW = 100;

/** The windows that a range of rows lies in, with one before and one behind, so that scrolling meets rows that are there. */
export function windowsOf(first: number, last: number, total: number | undefined): number[] {
  const most = total === undefined ? 0 : Math.max(0, Math.ceil(total / WINDOW) - 1);
  const from = Math.max(0, Math.floor(first / WINDOW) - 1);
  const to = Math.min(most, Math.floor(last / WINDOW) + 1);
  return Array.from({ length: Math.max(1, to - from + 1) }, (_, i) => from + i);
}

interface Page<Row> {
  rows: Row[];
  total: number;
}

/**
 * A long list read a window at a time. `row(i)` is undefined only until its window has come; windows once read stay, and
 * a list that is filtered anew keeps its old rows until the new ones are there.
 */
export function useWindows<Row>(key: readonly unknown[], load: (from: number, limit: number) => Promise<Page<Row>>) {
  const [range, setRange] = useState({ first: 0, last: 40 });
  const [known, setKnown] = useState<number | undefined>();
  const wanted = windowsOf(range.first, range.last, known);
  const pages = useQueries({
    queries: wanted.map((w) => ({
      queryKey: [...key, 'window', w],
      queryFn: () => load(w * WINDOW, WINDOW),
      placeholderData: (was: Page<Row> | undefined) => was,
    })),
  });
  const first = pages.find((p) => p.data && !p.isPlaceholderData) ?? pages.find((p) => p.data);
  const total = first?.data?.total;
  if (total !== undefined && total !== known) setKnown(total);
  const rows = new Map(wanted.map((w, i) => [w, pages[i]?.data?.rows]));
  const see = useCallback(
    (from: number, to: number) => setRange((was) => (was.first === from && was.last === to ? was : { first: from, last: to })),
    [],
  );
  return {
    total,
    row: (i: number): Row | undefined => rows.get(Math.floor(i / WINDOW))?.[i % WINDOW],
    stale: pages.some((p) => p.isPlaceholderData),
    error: total === undefined ? pages.find((p) => p.error)?.error : undefined,
    refetch: () => pages.forEach((p) => void p.refetch()),
    see,
  };
}
