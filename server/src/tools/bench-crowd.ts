import { randomUUID } from 'node:crypto';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';

/** People with an act a second each, and screens that listen as the page does: see `useLive` in the web. */
export interface Crowd {
  /** Where the server answers, up to and with `/api`. */
  address: string;
  /** Signed-in sessions that screens and people share. */
  cookies: readonly string[];
  madeBy: number;
  /** Heaps to take one unit from and put it back, one for each person; two may have the same. */
  heaps: readonly { itemId: number; placeId: number }[];
  binId: number;
  screens: number;
  seconds: number;
}

/** How long answers took, in milliseconds, in no order. */
export interface CrowdTimes {
  commands: number[];
  nows: number[];
}

const GATHER_MS = 80;
const EVERY_MS = 1_000;
const BEATS_MS = 500;

/** Lets a crowd work from a thread of its own, since people are not in the server's process either. */
export function crowd(plan: Crowd): Promise<CrowdTimes> {
  return new Promise((done, failed) => {
    const thread = new Worker(new URL(import.meta.url), { workerData: plan });
    thread.once('message', done);
    thread.once('error', failed);
  });
}

const pause = (ms: number) => new Promise((done) => setTimeout(done, Math.max(0, ms)));

/** A screen that shows Now: every line of the tape makes it read again, a moment later and at most once in its own beat. */
async function screen(plan: Crowd, cookie: string, signal: AbortSignal, nows: number[]): Promise<void> {
  const answer = await fetch(`${plan.address}/live`, { headers: { cookie }, signal });
  const every = EVERY_MS + Math.random() * BEATS_MS;
  let begun = -Infinity;
  let isDue = false;
  for await (const part of answer.body as unknown as AsyncIterable<Uint8Array>) {
    if (isDue || !new TextDecoder().decode(part).includes('event: tape')) continue;
    isDue = true;
    setTimeout(
      () => {
        begun = performance.now();
        isDue = false;
        void fetch(`${plan.address}/now`, { headers: { cookie }, signal })
          .then((read) => read.arrayBuffer())
          .then(() => nows.push(performance.now() - begun))
          .catch(() => undefined);
      },
      Math.max(GATHER_MS, begun + every - performance.now()),
    );
  }
}

/** Somebody who carries one unit to the bin and back, an act a second, beginning somewhere in the first second. */
async function person(plan: Crowd, i: number, commands: number[]): Promise<void> {
  const heap = plan.heaps[i];
  const cookie = plan.cookies[i % plan.cookies.length] ?? '';
  if (!heap) return;
  await pause((i * 1000) / plan.heaps.length);
  for (let n = 0; n < plan.seconds; n++) {
    const [fromPlaceId, toPlaceId] = n % 2 === 0 ? [heap.placeId, plan.binId] : [plan.binId, heap.placeId];
    const id = randomUUID();
    const command = { id, kind: 'store', itemId: heap.itemId, lotId: 0, units: 1, fromPlaceId, toPlaceId, how: 'scanned' };
    const begun = performance.now();
    const answer = await fetch(`${plan.address}/floor/commands`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie, 'idempotency-key': id },
      body: JSON.stringify({ command, madeAt: new Date().toISOString(), madeBy: plan.madeBy, late: false }),
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`A command was answered with ${answer.status}: ${text}`);
    commands.push(performance.now() - begun);
    await pause(1000 - (performance.now() - begun));
  }
}

async function work(plan: Crowd): Promise<CrowdTimes> {
  const times: CrowdTimes = { commands: [], nows: [] };
  const stop = new AbortController();
  const screens = Array.from({ length: plan.screens }, (_, i) =>
    screen(plan, plan.cookies[i % plan.cookies.length] ?? '', stop.signal, times.nows).catch(() => undefined),
  );
  await Promise.all(plan.heaps.map((_, i) => person(plan, i, times.commands)));
  stop.abort();
  await Promise.all(screens);
  return times;
}

if (!isMainThread) void work(workerData as Crowd).then((times) => parentPort?.postMessage(times));
