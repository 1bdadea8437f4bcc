import { age, clock, plural, whole } from '../../../ui/format';

export const kilos = (g: number): string => `${(g / 1000).toFixed(g < 10_000_000 / 1000 ? 1 : 0)} kg`;
export const metresWords = (m: number): string => `${whole(Math.round(m))} m`;
export const minutesWords = (m: number): string => (m < 60 ? `${Math.max(1, Math.round(m))} min` : age(new Date(0), m * 60_000));
/** What a change costs or saves: "+14 m, +1 min". */
export const costWords = (metres: number, minutes: number): string => `${signed(Math.round(metres))} m, ${signed(Math.round(minutes))} min`;
const signed = (n: number) => (n < 0 ? `−${-n}` : `+${n}`);
export const stopsWords = (n: number): string => plural(n, 'stop', 'stops');
export const clockIn = (minutes: number, now: number): string => clock(new Date(now + minutes * 60_000));
