import { classes } from '../../../ui/classes';

const WIDE = 132;
const HIGH = 18;
const LEAST = 5;

/** The torn edge between what the customer has and what is back: a line of teeth from top to foot. */
const teeth = (x: number) => `${x},1 ${x - 3},4 ${x + 2},7 ${x - 3},10 ${x + 2},13 ${x - 2},${HIGH - 1}`;

/**
 * A line of an order as a strip of its units: what the customer has in ink, what is torn off and back as an empty piece beside it, what is
 * announced and still to come with a dotted edge. `most` is the longest line of the order.
 */
export function TornLine({
  left,
  announced,
  back,
  most,
  says,
}: {
  left: number;
  announced: number;
  back: number;
  most: number;
  says: string;
}) {
  const all = Math.max(left, back, announced, 1);
  const scale = (units: number) => (units <= 0 ? 0 : Math.max(LEAST, (units / Math.max(most, all)) * WIDE));
  const kept = scale(left - back);
  const came = scale(back);
  const coming = Math.min(kept, scale(announced - back));
  return (
    <svg className={classes('torn')} width={WIDE + 12} height={HIGH} viewBox={`0 0 ${WIDE + 12} ${HIGH}`} role="img" aria-label={says}>
      {kept > 0 && <polygon points={`0,1 ${teeth(came > 0 ? kept - 1 : kept)} 0,${HIGH - 1}`} fill="currentColor" />}
      {coming > 0 && (
        <rect x={kept - coming} y={4} width={coming} height={HIGH - 8} fill="none" stroke="var(--color-sheet)" strokeDasharray="2 2" />
      )}
      {came > 0 && (
        <polygon
          points={`${teeth(kept + 5)} ${kept + 5 + came},${HIGH - 1} ${kept + 5 + came},1`}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.5}
        />
      )}
    </svg>
  );
}
