/** @jest-environment ./jest-page.js */
import { useQuery } from '@tanstack/react-query';
import { act, screen, waitFor } from '@testing-library/react';
import { shown } from '../testing/house';
import { key, type Read } from './keys';
import { useLive } from './live';

/** The browser's line to the server, held by the test. */
class Line extends EventTarget {
  static readonly CLOSED = 2;
  static open: Line[] = [];
  readyState = 0;
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  constructor() {
    super();
    Line.open.push(this);
  }
  close(): void {
    this.readyState = Line.CLOSED;
  }
  stands(): void {
    act(() => this.onopen?.());
  }
  breaks(): void {
    act(() => this.onerror?.());
  }
  tells(changed: string[]): void {
    const entry = { id: 1, at: '2026-05-14T11:42:00Z', who: 'Idris', kind: 'pick', title: 'a pick' };
    act(() => void this.dispatchEvent(new MessageEvent('tape', { data: JSON.stringify({ entries: [entry], changed }) })));
  }
}

/** What follows at once on another reading waits for its turn, a second later. */
const SOON = { timeout: 3_000 };

const counts = new Map<Read, number>();
function Reading({ of }: { of: Read }) {
  useQuery({
    queryKey: key(of),
    queryFn: () => {
      counts.set(of, (counts.get(of) ?? 0) + 1);
      return Promise.resolve(of);
    },
  });
  return null;
}
function Page() {
  const up = useLive();
  return (
    <>
      <p>{up ? 'up' : 'down'}</p>
      <Reading of="orders" />
      <Reading of="suppliers" />
      <Reading of="preference" />
    </>
  );
}
const line = () => Line.open.at(-1) as Line;
const read = (of: Read) => counts.get(of) ?? 0;

describe('the line to the server', () => {
  beforeEach(() => {
    counts.clear();
    Line.open = [];
    globalThis.EventSource = Line as unknown as typeof EventSource;
  });

  it('reads again what was read before it stood, since nobody was told of changes until then', async () => {
    shown(<Page />);
    await waitFor(() => expect(read('orders')).toBe(1));
    line().stands();
    await waitFor(() => expect([read('orders'), read('suppliers')]).toEqual([2, 2]));
    // What nobody but its owner changes is left alone.
    expect(read('preference')).toBe(1);
  });

  it('reads again only what shows something of what has changed', async () => {
    shown(<Page />);
    line().stands();
    await waitFor(() => expect(read('suppliers')).toBe(2));
    line().tells(['orders']);
    await waitFor(() => expect(read('orders')).toBe(3), SOON);
    expect(read('suppliers')).toBe(2);
  });

  it('says that it is down, and reads everything again when it stands once more', async () => {
    shown(<Page />);
    line().stands();
    await waitFor(() => expect(read('suppliers')).toBe(2));
    line().breaks();
    expect(screen.getByText('down')).toBeTruthy();
    line().stands();
    expect(screen.getByText('up')).toBeTruthy();
    await waitFor(() => expect([read('orders'), read('suppliers')]).toEqual([3, 3]), SOON);
  });

  it('is let go with the page', () => {
    const { unmount } = shown(<Page />);
    unmount();
    expect(line().readyState).toBe(Line.CLOSED);
  });
});
