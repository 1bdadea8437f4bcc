/** Class names in one string, without those that do not apply. */
export const classes = (...names: (string | false | null | undefined)[]): string => names.filter(Boolean).join(' ');
