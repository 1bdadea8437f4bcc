import { createHmac, timingSafeEqual } from 'node:crypto';

/** How a message is signed between systems that share a secret: HMAC-SHA256 of its body, in hex. */
export const signature = (secret: string, body: string | Buffer) => createHmac('sha256', secret).update(body).digest('hex');

/** Whether a message was signed with the secret; takes as long for a wrong signature as for a right one. */
export function signatureMatches(secret: string, body: Buffer, given: string): boolean {
  const wanted = Buffer.from(signature(secret, body));
  const got = Buffer.from(given);
  return wanted.length === got.length && timingSafeEqual(wanted, got);
}
