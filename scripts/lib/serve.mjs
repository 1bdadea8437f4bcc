import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './shell.mjs';

/** Starts one of our programs and waits until it says that it is ready. */
export function startProgram(path, env, name) {
  const child = fork(join(ROOT, path), [], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const exited = new Promise((done) => child.on('exit', done));
  const ready = new Promise((done, fail) => {
    child.on('message', (message) => message?.ready && done());
    child.on('exit', (code) => fail(new Error(`${name} ended with ${code} before it was ready`)));
  });
  const stop = async () => {
    if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM');
    await exited;
  };
  return { child, ready, stop, exited };
}

/** Stops everything once, in order, whichever signal comes first. */
export function stopOnSignals(stops) {
  let stopping;
  const all = () =>
    (stopping ??= (async () => {
      for (const stop of stops) await stop().catch(() => undefined);
    })());
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void all().then(() => process.exit(0)));
  return all;
}
