import { newKey, ProblemError } from '../../../api/client';

/** Sends a file as it is; returns the number of its import. Throws the problem behind a refusal. */
export async function uploadImport(file: File): Promise<string> {
  const answer = await fetch(`/api/imports?name=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    body: file,
    headers: { 'content-type': 'application/octet-stream', 'idempotency-key': newKey() },
  });
  const body = (await answer.json().catch(() => ({}))) as { id?: string; code?: string; detail?: string; fields?: Record<string, string> };
  if (!answer.ok || !body.id) {
    throw new ProblemError(
      answer.status,
      body.code ?? 'unknown',
      `${file.name}: ${body.detail ?? 'the file did not arrive. Try again'}`,
      body.fields,
    );
  }
  return body.id;
}

/** Files in the order in which an empty house needs them: numbered names say so themselves. */
export const inOrder = (files: readonly File[]): File[] => [...files].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
