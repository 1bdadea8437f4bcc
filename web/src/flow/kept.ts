import { ProblemError } from '../api/client';
import { deviceDatabase } from './device-store';

/** Whether asking failed for want of a network, or of a server behind it. */
export const isOffline = (thrown: unknown): boolean =>
  !(thrown instanceof ProblemError) || thrown.status === 502 || thrown.status === 503 || thrown.status === 504;

/** Asks the server and keeps its answer on the device; without a network, the answer of the last time. */
export async function kept<T>(key: string, asking: () => Promise<T>): Promise<T> {
  try {
    const answer = await asking();
    await (await deviceDatabase()).put('answers', { key, answer });
    return answer;
  } catch (thrown) {
    if (!isOffline(thrown)) throw thrown;
    const before = await (await deviceDatabase()).get('answers', key);
    if (before) return before.answer as T;
    throw thrown;
  }
}

/** Forgets what was kept for whoever was signed in. What is on its way to the server stays. */
export async function forgetAnswers(): Promise<void> {
  await (await deviceDatabase()).clear('answers');
}
