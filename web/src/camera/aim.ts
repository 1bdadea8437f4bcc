/** A code in a picture, with where its middle lies: 0 to 1 from left and top. */
export interface SeenCode {
  text: string;
  x: number;
  y: number;
}

/** A code must be out of sight this long before it counts again: the same label twice is two goods. */
const GONE_MS = 450;

/** The code that is aimed at: the one nearest to the middle of the picture. */
export function aimedAt(seen: readonly SeenCode[]): SeenCode | undefined {
  const far = (c: SeenCode) => (c.x - 0.5) ** 2 + (c.y - 0.5) ** 2;
  return seen.reduce<SeenCode | undefined>((best, c) => (best === undefined || far(c) < far(best) ? c : best), undefined);
}

/**
 * Turns what a camera sees, picture by picture, into scans: one code at a time, each once until it has been out of sight.
 * Time is handed in, in milliseconds.
 */
export class Aim {
  private held: string | null = null;
  private lastSeen = -Infinity;

  /** Returns the code that this picture scans; null where it scans none. */
  look(seen: readonly SeenCode[], at: number): string | null {
    const code = aimedAt(seen)?.text ?? null;
    if (this.held !== null && at - this.lastSeen > GONE_MS) this.held = null;
    if (code === null) return null;
    if (seen.some((c) => c.text === this.held)) {
      this.lastSeen = at;
      // Another label beside the one that was read must be aimed at alone.
      return null;
    }
    this.held = code;
    this.lastSeen = at;
    return code;
  }
}

/** The part of the picture that is read: wide and low in the middle of what is shown, where the corners mark it. */
export const AIM = { width: 0.86, height: 0.62 };

interface Size {
  width: number;
  height: number;
}

/**
 * The part of a picture to read, in its own pixels. It is shown so that it fills its frame, with what is over cut off; only
 * what lies between the corners is read, never what nobody sees.
 */
export function aimedPart(picture: Size, frame: Size): Size & { left: number; top: number } {
  const scale = Math.max(frame.width / picture.width, frame.height / picture.height) || 1;
  const width = Math.round(Math.min(picture.width, frame.width / scale || picture.width) * AIM.width);
  const height = Math.round(Math.min(picture.height, frame.height / scale || picture.height) * AIM.height);
  return { left: Math.round((picture.width - width) / 2), top: Math.round((picture.height - height) / 2), width, height };
}
