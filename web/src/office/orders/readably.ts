/** JSON a field a line, so that a person can mend it; anything else as it is. */
export function readably(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2);
  } catch {
    return text;
  }
}
