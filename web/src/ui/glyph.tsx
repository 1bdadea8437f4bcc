export type GlyphName =
  | 'empty'
  | 'quarter'
  | 'half'
  | 'most'
  | 'full'
  | 'over'
  | 'blocked'
  | 'held'
  | 'fb-ok'
  | 'fb-wrong'
  | 'fb-many'
  | 'fb-unknown'
  | 'scan'
  | 'go'
  | 'down'
  | 'undo'
  | 'link'
  | 'shut'
  | 'print'
  | 'sound'
  | 'person'
  | 'clock'
  | 'pen';

const SAYS: Partial<Record<GlyphName, string>> = {
  empty: 'waiting',
  quarter: 'begun',
  half: 'half done',
  most: 'nearly done',
  full: 'done',
  over: 'over-filled',
  blocked: 'blocked',
  held: 'held',
};

/** A printed sign. With `says` it is read out; without, it only decorates words that stand beside it. */
export function Glyph({
  name,
  size,
  says,
  className = '',
}: {
  name: GlyphName;
  size?: number;
  says?: string | boolean;
  className?: string;
}) {
  const label = says === true ? SAYS[name] : says || undefined;
  return (
    <span
      className={`g g-${name} ${className}`}
      style={size ? { fontSize: size } : undefined}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    />
  );
}

/** The glyph of a share done: over 1 is over-filled. */
export function progressGlyph(done: number, of: number): GlyphName {
  if (done <= 0) return 'empty';
  if (done > of) return 'over';
  const share = done / of;
  return share >= 1 ? 'full' : share >= 0.75 ? 'most' : share >= 0.5 ? 'half' : 'quarter';
}

const ORDER_GLYPHS: Readonly<Record<string, GlyphName>> = {
  open: 'empty',
  held: 'held',
  released: 'empty',
  picking: 'quarter',
  picked: 'half',
  packed: 'most',
  shipped: 'full',
  cancelled: 'blocked',
};
export const orderGlyph = (state: string, stuck = false): GlyphName => (stuck ? 'blocked' : (ORDER_GLYPHS[state] ?? 'empty'));

const PIP_GLYPHS: Readonly<Record<string, GlyphName>> = {
  none: 'empty',
  part: 'half',
  ready: 'full',
  gone: 'full',
  unknown: 'blocked',
};
const MOST_PIPS = 8;

/** One glyph for each line, up to eight, then "+n"; read as one sentence. */
export function Pips({ lines }: { lines: string[] }) {
  const ready = lines.filter((l) => l === 'ready' || l === 'gone').length;
  return (
    <span className="pips" role="img" aria-label={`${ready} of ${lines.length} lines in stock`}>
      {lines.slice(0, MOST_PIPS).map((l, i) => (
        <Glyph key={i} name={PIP_GLYPHS[l] ?? 'empty'} />
      ))}
      {lines.length > MOST_PIPS && <span aria-hidden>+{lines.length - MOST_PIPS}</span>}
    </span>
  );
}
