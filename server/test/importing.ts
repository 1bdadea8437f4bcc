import { ImportJobs } from '../src/exchange/import-jobs.js';
import type { ImportDto } from '../src/exchange/exchange.dto.js';
import type { Caller, House } from './house.js';

/** Sends a file; returns the answer whatever it is. */
export const upload = (caller: Caller, name: string, content: Buffer | string, kind = '') =>
  caller.file('post', `imports?name=${encodeURIComponent(name)}&kind=${kind}`, Buffer.from(content as string));

/** Reads a file, takes its columns as guessed (or as said), and has it checked. */
export async function checked(
  house: House,
  caller: Caller,
  name: string,
  content: Buffer | string,
  said: { kind?: string; fields?: string[] } = {},
): Promise<ImportDto> {
  const { id } = (await upload(caller, name, content, said.kind).expect(201)).body as { id: string };
  const run = (await caller.get(`imports/${id}`).expect(200)).body as ImportDto;
  await caller
    .put(`imports/${id}/columns`, { kind: said.kind ?? run.kind, fields: said.fields ?? run.columns.map((c) => c.field ?? '') })
    .expect(204);
  return settled(house, caller, id);
}

/** Waits until nothing is left to do, and reads the import. */
export async function settled(house: House, caller: Caller, id: string): Promise<ImportDto> {
  const jobs = house.app.get(ImportJobs);
  jobs.nudge();
  await jobs.settled();
  return (await caller.get(`imports/${id}`).expect(200)).body as ImportDto;
}

/** Checks a file and takes it in; fails the test where a row is faulty. */
export async function takenIn(house: House, caller: Caller, name: string, content: Buffer | string): Promise<ImportDto> {
  const run = await checked(house, caller, name, content);
  if (run.faulty > 0) throw new Error(`${name} (${run.kind}): ${JSON.stringify(run.faults.slice(0, 3))}`);
  await caller.post(`imports/${run.id}/apply`, { goodRowsOnly: false }).expect(204);
  const done = await settled(house, caller, run.id);
  if (done.state !== 'applied') throw new Error(`${name}: ${done.state}, ${done.problem ?? ''}`);
  return done;
}
