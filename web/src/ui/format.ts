const MINUTE = 60_000;

/** "52 min", "1 h 20", "2 d". */
export function age(since: string | Date, now = Date.now()): string {
  const minutes = Math.max(0, Math.round((now - new Date(since).getTime()) / MINUTE));
  if (minutes < 60) return `${minutes} min`;
  if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
  return `${Math.floor(minutes / 1440)} d${minutes < 10 * 1440 && Math.floor((minutes % 1440) / 60) > 0 ? ` ${Math.floor((minutes % 1440) / 60)} h` : ''}`;
}

const sameDay = (a: Date, b: Date) => a.toDateString() === b.toDateString();

/** "15:30". */
export function clock(at: string | Date): string {
  return new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' }).format(new Date(at));
}

/** "11:42:08". */
export function clockSeconds(at: string | Date): string {
  return new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' }).format(new Date(at));
}

/** "Thu 14 May". */
export function day(at: string | Date): string {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' }).format(new Date(at)).replace(',', '');
}

/** "15:30" for today, "Thu 14 May 15:30" for another day. */
export function when(at: string | Date, now = new Date()): string {
  return sameDay(new Date(at), now) ? clock(at) : `${day(at)} ${clock(at)}`;
}

/** "today" or "Thu 14 May", for a date without a time. */
export function dayWord(date: string | null, now = new Date()): string {
  if (!date) return 'no date';
  return sameDay(new Date(`${date}T12:00:00`), now) ? 'today' : day(`${date}T12:00:00`);
}

export const whole = (n: number) => n.toLocaleString('en-GB').replace('-', '−');
/** The size of a file: 320 kB. */
export const sizeWords = (bytes: number) =>
  bytes < 1_000_000 ? `${whole(Math.max(1, Math.round(bytes / 1000)))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
export const plural = (n: number, one: string, many: string) => `${whole(n)} ${n === 1 ? one : many}`;

/** ", in 1 h 20" for a time to come, ", late" for one gone by. */
export function untilWords(at: string | Date, now = Date.now()): string {
  const left = new Date(at).getTime() - now;
  return left > 0 ? `, in ${age(new Date(now - left), now)}` : ', late';
}

/** Whether an instant lies further back than a number of milliseconds. */
export function olderThan(at: string | Date, ms: number, now = Date.now()): boolean {
  return now - new Date(at).getTime() > ms;
}
