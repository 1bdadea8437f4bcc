import type { IncomingMessage } from 'node:http';
import { Problem } from './problem.js';

/** A request's body as it came. Refuses one that is larger than `most` bytes as soon as that is known. */
export async function readBody(request: IncomingMessage, most: number): Promise<Buffer> {
  const tooLarge = new Problem(413, 'too-large', `The file is larger than ${Math.round(most / 1024 / 1024)} MB. Choose a smaller one`);
  if (Number(request.headers['content-length'] ?? 0) > most) throw tooLarge;
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request) {
    size += (part as Buffer).length;
    if (size > most) throw tooLarge;
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts);
}
