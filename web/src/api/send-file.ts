import { ProblemError } from './client';
import type { Once } from './use-act';

interface ProblemBody {
  code?: string;
  detail?: string;
  fields?: Record<string, string>;
}

/** Sends a file's bytes as they are, under the act's key. Returns the answer's body; throws the problem behind a refusal. */
export async function sendFile<T>(method: 'POST' | 'PUT', url: string, file: File, once: Once): Promise<T> {
  const answer = await fetch(url, {
    method,
    body: file,
    headers: { 'content-type': 'application/octet-stream', ...once },
  });
  const body = (await answer.json().catch(() => ({}))) as T & ProblemBody;
  if (answer.ok) return body;
  throw new ProblemError(answer.status, body.code ?? 'unknown', body.detail ?? 'The file did not arrive. Try again', body.fields);
}
