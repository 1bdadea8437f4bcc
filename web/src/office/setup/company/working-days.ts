export const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** "Mon, Tue, Fri" for the days that a week of Y and N has. */
export const daysWords = (days: string): string => DAYS.filter((_, i) => days[i] === 'Y').join(', ');

/** What a departure is called: as somebody said, otherwise as its carrier, otherwise a van. */
export const vanName = (van: { name: string; carrier: string }, carriers: readonly { code: string; name: string }[]): string =>
  van.name.trim() || (carriers.find((c) => c.code === van.carrier)?.name ?? 'Van').slice(0, 40);
