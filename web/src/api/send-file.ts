import { newKey, ProblemError } from './client';

interface ProblemBody {
  code?: string;
  detail?: string;
  fields?: Record<string, string>;
}

/** Sends a file's bytes as they are, under a key of its own. Returns the answer's body; throws the problem behind a refusal. */
export async function sendFile<T>(method: 'POST' | 'PUT', url: string, file: File): Promise<T> {
  const answer = await fetch(url, {
    method,
    body: file,
    headers: { 'content-type': 'application/octet-stream', 'idempotency-key': newKey() },
  });
  const body = (await answer.json().catch(() => ({}))) as T & ProblemBody;
  if (answer.ok) return body;
  throw new ProblemError(answer.status, body.code ?? 'unknown', body.detail ?? 'The file did not arrive. Try again', body.fields);
}
