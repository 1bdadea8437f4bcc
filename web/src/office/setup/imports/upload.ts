import { ProblemError } from '../../../api/client';
import { sendFile } from '../../../api/send-file';
import type { Once } from '../../../api/use-act';

/** Sends a file to be taken in; returns the number of its import. A problem says which file it was. */
export async function uploadImport(file: File, once: Once): Promise<string> {
  try {
    const { id } = await sendFile<{ id?: string }>('POST', `/api/imports?name=${encodeURIComponent(file.name)}`, file, once);
    if (id) return id;
  } catch (thrown) {
    if (!(thrown instanceof ProblemError)) throw thrown;
    throw new ProblemError(thrown.status, thrown.code, `${file.name}: ${thrown.message}`, thrown.fields);
  }
  throw new ProblemError(500, 'unknown', `${file.name}: The file did not arrive. Try again`);
}

/** Files in the order in which an empty house needs them: numbered names say so themselves. */
export const inOrder = (files: readonly File[]): File[] => [...files].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
