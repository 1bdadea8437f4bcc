import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** A secret for a cookie or an enrolment: 256 bits, printable. */
export const newToken = () => randomBytes(32).toString('base64url');

/** What is kept of a token; the token itself is never stored. */
export const tokenHash = (token: string) => createHash('sha256').update(token).digest('hex');

/** argon2id with the package's defaults (19 MiB, two passes). */
export const secretHash = (secret: string) => hash(secret);

/** Compares in constant time; an absent hash costs the same as a wrong secret. */
export async function secretMatches(stored: string | null, secret: string): Promise<boolean> {
  if (stored) return verify(stored, secret);
  await hash(secret);
  return false;
}

/** Eight letters and digits without those that look alike, for an enrolment code that may be typed. */
export function shortCode(): string {
  const alphabet = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
  return [...randomBytes(8)].map((byte) => alphabet[byte % alphabet.length]).join('');
}
