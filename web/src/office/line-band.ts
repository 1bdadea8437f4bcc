/** Measures of the band, in pixels: the width of Now, its middle line, half its least and greatest thickness. */
export const NOW_WIDTH = 128;
export const MIDDLE = 15;
export const THINNEST = 2.2;
const THICKEST = 12;

/** Half the band's thickness for a stage: hours of work against what today's hands can clear, which is two thirds of the way. */
export function halfThickness(hours: number, capacity: number): number {
  return Math.min(THICKEST, THINNEST + (capacity > 0 ? (hours / capacity) * 8 : 0));
}

/** The band's outline: one shape that thickens and thins from stage to stage. */
export function bandPath(halves: readonly number[], width: number): string {
  const step = (width - NOW_WIDTH) / halves.length;
  const bend = 14;
  let top = `M20 ${MIDDLE - THINNEST}H${NOW_WIDTH - bend}`;
  let bottom = '';
  halves.forEach((half, i) => {
    const x = NOW_WIDTH + i * step;
    const before = i === 0 ? THINNEST : (halves[i - 1] ?? THINNEST);
    top += `C${x} ${MIDDLE - before} ${x} ${MIDDLE - half} ${x + bend} ${MIDDLE - half}H${i === halves.length - 1 ? width - 34 : x + step - bend}`;
    const back = `C${x} ${MIDDLE + half} ${x} ${MIDDLE + before} ${x - bend} ${MIDDLE + before}`;
    bottom = `H${x + bend}${back}${bottom}`;
  });
  const last = halves.at(-1) ?? THINNEST;
  return `${top}L${width - 14} ${MIDDLE}L${width - 34} ${MIDDLE + last}${bottom}H20Z`;
}
