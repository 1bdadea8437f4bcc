import { ProblemError } from '../../../api/client';

/** Posts to a route that answers with a PDF; throws the problem behind a refusal. */
export async function fetchPdf(path: string, body: object): Promise<Blob> {
  const answer = await fetch(path, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
  if (answer.ok) return answer.blob();
  const problem = (await answer.json().catch(() => ({}))) as { code?: string; detail?: string; fields?: Record<string, string> };
  throw new ProblemError(
    answer.status,
    problem.code ?? 'unknown',
    problem.detail ?? 'The server does not answer. Try again',
    problem.fields,
  );
}

/** Hands a file to the browser to keep. */
export function saveBlob(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
