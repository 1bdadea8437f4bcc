import type { Dto } from '../api/client';

/** Measures of the band, in pixels: the width of Now, its middle line, half its least and greatest thickness. */
export const NOW_WIDTH = 128;
export const MIDDLE = 15;
export const THINNEST = 2.2;
const THICKEST = 12;

/**
 * Half the band's thickness for a stage: hours of work against what a usual day gives it, which is two thirds of the way. As thin as
 * can be where its pace was not measured yet.
 */
export function halfThickness(hours: number | null, hoursADay: number | null): number {
  return Math.min(THICKEST, THINNEST + (hours !== null && hoursADay ? (hours / hoursADay) * 8 : 0));
}

const hoursWords = (hours: number) => {
  const minutes = Math.round(hours * 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
};

/** What the band says at a stage, in words. */
export function paceWords({ hours, hoursADay }: Pick<Dto['StageDto'], 'hours' | 'hoursADay'>): string {
  if (hours === null || hoursADay === null) return 'How fast this goes is not known yet: nobody has worked at it in the last fortnight';
  return `${hoursWords(hours)} of work waits; a usual day gives it ${hoursWords(hoursADay)}`;
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
