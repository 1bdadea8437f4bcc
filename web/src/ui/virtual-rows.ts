import { useVirtualizer } from '@tanstack/react-virtual';
import { type RefObject, useEffect } from 'react';

const ROW_PX = 28;
const OVERSCAN = 24;

/** Which rows of a long list of equal rows are drawn, and the height of those before and behind them; tells `see` what is in sight. */
export function useVirtualRows(box: RefObject<HTMLElement | null>, count: number, see: (first: number, last: number) => void) {
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called here and handed to nobody who memoizes
  const rows = useVirtualizer({ count, getScrollElement: () => box.current, estimateSize: () => ROW_PX, overscan: OVERSCAN });
  const items = rows.getVirtualItems();
  const [first, last] = [items[0], items.at(-1)];
  const [from, to] = [first?.index ?? 0, last?.index ?? 0];
  useEffect(() => see(from, to), [see, from, to]);
  return {
    indexes: items.map((i) => i.index),
    before: first?.start ?? 0,
    behind: last ? rows.getTotalSize() - last.end : 0,
    /** Rows that fit into the box, less two, for paging. */
    page: () => Math.max(1, Math.floor((box.current?.clientHeight ?? ROW_PX) / ROW_PX) - 2),
    goTo: (index: number) => rows.scrollToIndex(index),
  };
}
