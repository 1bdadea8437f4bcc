import { seeded } from '@vectrum/core/random';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { type Faults, Picker, type PickersReport } from './pickers.js';

/** Pickers who walk all open rounds of a site over HTTP. */
export interface ManyPickers {
  /** Where the server answers, up to and with `/api`. */
  address: string;
  /** Signed-in sessions that pickers share, each with its person. */
  people: readonly { cookie: string; id: number }[];
  siteId: number;
  table: string;
  /** Empty totes, shared out among the pickers. */
  totes: readonly string[];
  pickers: number;
  faults: Faults;
  /** Milliseconds between two steps of one picker. */
  step: number;
}

/** Lets them work from a thread of its own, since people are not in the server's process either. */
export function manyPickers(plan: ManyPickers): Promise<PickersReport> {
  return new Promise((done, failed) => {
    const thread = new Worker(new URL(import.meta.url), { workerData: plan });
    thread.once('message', done);
    thread.once('error', failed);
  });
}

async function work(plan: ManyPickers): Promise<PickersReport> {
  const share = Math.floor(plan.totes.length / plan.pickers);
  const reports = await Promise.all(
    Array.from({ length: plan.pickers }, (_, i) => {
      const person = plan.people[i % plan.people.length] ?? { cookie: '', id: 0 };
      const headers = { cookie: person.cookie, 'content-type': 'application/json' };
      const picker = new Picker(
        {
          get: async (path) => {
            const answer = await fetch(`${plan.address}/${path}`, { headers });
            if (!answer.ok) throw new Error(`${path} was answered with ${answer.status}: ${await answer.text()}`);
            return answer.json();
          },
          send: async (command, late) => {
            const answer = await fetch(`${plan.address}/floor/commands`, {
              method: 'POST',
              headers: { ...headers, 'idempotency-key': command.id },
              body: JSON.stringify({ command, madeAt: new Date().toISOString(), madeBy: person.id, late }),
            });
            const text = await answer.text();
            if (answer.status >= 500) throw new Error(`${command.kind} was answered with ${answer.status}: ${text}`);
            return answer.status;
          },
        },
        seeded(1000 + i),
        plan.faults,
        plan.siteId,
        plan.table,
        plan.step,
      );
      return picker.work(plan.totes.slice(i * share, (i + 1) * share));
    }),
  );
  const sum = (of: Exclude<keyof PickersReport, 'times'>) => reports.reduce((n, r) => n + r[of], 0);
  return {
    times: reports.flatMap((r) => r.times),
    rounds: sum('rounds'),
    picks: sum('picks'),
    shorts: sum('shorts'),
    refusedHere: sum('refusedHere'),
    refusedThere: sum('refusedThere'),
  };
}

if (!isMainThread) void work(workerData as ManyPickers).then((report) => parentPort?.postMessage(report));
