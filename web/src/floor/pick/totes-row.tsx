import { cartOf, toteOf, type Codebook, type PickOrder, type PickState, type PickTask, wantedAt } from '@vectrum/core/scan';
import { useEffect, useRef } from 'react';
import { Glyph, progressGlyph } from '../../ui/glyph';

const codeOf = (book: Codebook, id: number | undefined) => Object.values(book.places).find((p) => p.id === id)?.code;

/**
 * The cart, and the totes of a round of several orders as they stand on it: which is for whom, how full its order is, which one is meant
 * now.
 */
export function TotesRow({ task, state, book, now }: { task: PickTask; state: PickState; book: Codebook; now: number | undefined }) {
  const cart = codeOf(book, cartOf(task, state));
  if (task.orders.length < 2 && cart === undefined) return null;
  return (
    <ul className="totes" aria-label="Totes of this round">
      {cart !== undefined && (
        <li className="cart" title="Its totes stand on this cart">
          <span className="code">{cart}</span>
        </li>
      )}
      {task.orders.map((o) => (
        <ToteCell key={o.id} order={o} code={codeOf(book, toteOf(task, state, o.id))} task={task} state={state} meant={o.id === now} />
      ))}
    </ul>
  );
}

function ToteCell({
  order,
  code,
  task,
  state,
  meant,
}: {
  order: PickOrder;
  code: string | undefined;
  task: PickTask;
  state: PickState;
  meant: boolean;
}) {
  const own = task.stops.filter((s) => s.orderId === order.id);
  const done = own.filter((s) => wantedAt(state, s) <= 0).length;
  const cell = useRef<HTMLLIElement>(null);
  // The one that is meant is in sight, however many stand on the cart.
  useEffect(() => {
    if (meant) cell.current?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [meant]);
  return (
    <li ref={cell} aria-current={meant ? 'true' : undefined} title={`${order.code}, ${order.customer}`}>
      <Glyph name={progressGlyph(done, own.length)} size={16} says />
      <span className="code">{code ?? 'no tote'}</span>
    </li>
  );
}
