import type { IncomingMessage, ServerResponse } from 'node:http';

const MOST_BYTES = 1_000_000;

export async function bodyOf(request: IncomingMessage): Promise<string> {
  let size = 0;
  const parts: Buffer[] = [];
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST_BYTES) throw new Refused(413, 'That is too much');
    parts.push(part);
  }
  return Buffer.concat(parts).toString('utf8');
}

/** A request that the outside world will not take. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

export function json(text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    if (value && typeof value === 'object') return value as Record<string, unknown>;
  } catch {
    // falls through to the refusal
  }
  throw new Refused(400, 'This is not a JSON object');
}

export function send(response: ServerResponse, status: number, body: unknown): void {
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
}
