const MOST_CELLS = 40;

/** One cell a pack, an end mark at the ordered quantity, taller cells beyond it. Units are base units. */
export function ReceivedStrip({ ordered, received, factor }: { ordered: number; received: number; factor: number }) {
  const packs = Math.max(1, Math.ceil(ordered / factor));
  const cells = Math.min(packs, MOST_CELLS);
  const perCell = ordered / cells;
  const over = Math.min(4, Math.ceil(Math.max(0, received - ordered) / factor));
  return (
    <span className="strip-r" role="img" aria-label={`${received} of ${ordered} received`}>
      {Array.from({ length: cells }, (_, i) => (
        <i key={i} className={received >= (i + 1) * perCell - 1e-9 ? 'came' : received > i * perCell ? 'part' : ''} />
      ))}
      <u />
      {Array.from({ length: over }, (_, i) => (
        <i key={`o${i}`} className="over" />
      ))}
    </span>
  );
}
