import createClient from 'openapi-fetch';
import { tellSession } from './session-ended';
import type { components, paths } from './schema';

export type Dto = components['schemas'];

/** A refusal by the server, with its stable code. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly fields: Record<string, string> = {},
    readonly band: string | null = null,
    readonly title: string | null = null,
  ) {
    super(message);
  }
}

export const newKey = () => crypto.randomUUID();

export const api = createClient<paths>({ baseUrl: '', credentials: 'same-origin' });

api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') {
      request.headers.set('device-time', new Date().toISOString());
    }
    return request;
  },
  onResponse({ request, response }) {
    // A wrong password is answered so too, and says nothing of a sign-in that was there.
    const { pathname } = new URL(request.url);
    const isAtDoor = request.method === 'POST' && pathname.startsWith('/api/session');
    if (response.status === 401 && !isAtDoor) tellSession(true);
    if (response.ok && pathname === '/api/session') tellSession(request.method === 'DELETE');
    return response;
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** Unwraps an answer, or throws the problem behind it. */
export async function ask<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (response.ok) return data as T;
  const p = (typeof error === 'object' && error !== null ? error : {}) as {
    code?: string;
    detail?: string;
    fields?: Record<string, string>;
    band?: string;
    title?: string;
  };
  throw new ProblemError(
    response.status,
    p.code ?? 'unknown',
    p.detail ?? 'The server does not answer. Try again',
    p.fields,
    p.band ?? null,
    p.title ?? null,
  );
}

/** Headers that name the version a change is made from. */
export const ifMatch = (version: number) => ({ 'if-match': `"${version}"` });

/** What a site's own lists are asked with. */
export const at = (site: { id: number } | undefined) => ({ params: { query: site ? { site: String(site.id) } : {} } });
