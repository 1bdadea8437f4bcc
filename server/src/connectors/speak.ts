import { signature } from '../platform/index.js';
import { type ChannelAccess, RefusedByChannel, TooSoon } from './connector.js';

const TIMEOUT_MS = 5_000;
const LONGEST_REST_S = 600;

/** Answers that are against what was said, and not against who says it or when. */
const REFUSALS: ReadonlySet<number> = new Set([400, 404, 405, 406, 409, 410, 413, 415, 422]);

interface Spoken {
  method: 'GET' | 'PUT' | 'POST';
  path: string;
  body?: string;
  type?: string;
  /** Signs the body, or what is asked where there is none; or carries the channel's key. */
  by: 'signature' | 'key';
}

/** Asks a channel's system something. Throws where it does not answer in time or refuses; `TooSoon` where it asks for a rest. */
export async function speak(channel: ChannelAccess, { method, path, body, type = 'application/json', by }: Spoken): Promise<Response> {
  const secret = channel.secret ?? '';
  const response = await fetch(`${channel.base_url ?? ''}${path}`, {
    method,
    headers: {
      ...(body === undefined ? {} : { 'content-type': type }),
      ...(by === 'signature' ? { 'x-signature': signature(secret, body ?? path) } : { authorization: `Bearer ${secret}` }),
    },
    ...(body === undefined ? {} : { body }),
    signal: AbortSignal.timeout(TIMEOUT_MS),
  });
  if (response.status === 429) {
    const asked = Number(response.headers.get('retry-after'));
    throw new TooSoon(Math.min(LONGEST_REST_S, Number.isFinite(asked) && asked > 0 ? Math.ceil(asked) : 5));
  }
  if (REFUSALS.has(response.status)) throw new RefusedByChannel(`${channel.name} refuses it with ${response.status}`);
  if (!response.ok) throw new Error(`${channel.name} answered ${response.status}`);
  return response;
}
