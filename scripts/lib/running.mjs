// What runs on this machine already, so that a start never works against it: who holds a port, who holds a directory, who runs from this checkout.
import { existsSync, mkdirSync, readdirSync, readFileSync, readlinkSync, rmSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import { ROOT, say } from './shell.mjs';

const RUNNING = join(ROOT, '.cache/running');
const LISTENING = '0A';
const ENDS_WITHIN_MS = 30_000;

const orElse = (work, otherwise) => {
  try {
    return work();
  } catch {
    return otherwise;
  }
};

const read = (path) => orElse(() => readFileSync(path, 'utf8'), '');
const words = (pid) => read(`/proc/${pid}/cmdline`).replace(/\0/g, ' ').trim();

/** Whether a process lives whose command line holds a text: numbers of processes are given anew. */
const lives = (pid, text) => Number.isInteger(pid) && pid > 0 && words(pid).includes(text);

function answers(port, host) {
  return new Promise((done) => {
    const socket = connect({ host, port }, () => {
      socket.destroy();
      done(true);
    });
    socket.on('error', () => done(false));
  });
}

/** What a process has open; nothing where that is not ours to see, or it is gone meanwhile. */
const filesOf = (pid) =>
  orElse(() => readdirSync(`/proc/${pid}/fd`), []).map((file) => orElse(() => readlinkSync(`/proc/${pid}/fd/${file}`), ''));

/** The process that listens on a port, in words; null where that cannot be told. */
function listenerOn(port) {
  const hex = port.toString(16).toUpperCase().padStart(4, '0');
  const inodes = new Set(
    ['/proc/net/tcp', '/proc/net/tcp6'].flatMap((path) =>
      read(path)
        .split('\n')
        .map((line) => line.trim().split(/\s+/))
        .filter((cells) => cells[1]?.endsWith(`:${hex}`) && cells[3] === LISTENING)
        .map((cells) => `socket:[${cells[9]}]`),
    ),
  );
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    if (filesOf(pid).some((file) => inodes.has(file))) return `process ${pid} (${words(pid).slice(0, 80)})`;
  }
  return null;
}

/** Refuses a port that somebody listens on, and says who. */
export async function mustBeFree(port, variable) {
  if (port === 0 || !(await answers(port, '127.0.0.1'))) return;
  const who = listenerOn(port);
  throw new Error(`Port ${port} is taken${who ? ` by ${who}` : ''}. Stop that, or choose another port with ${variable}`);
}

/** Takes a directory of data for this process until it ends; refuses one that another start holds. */
export function holdDirectory(dir, port, variable) {
  mkdirSync(dir, { recursive: true });
  const path = join(dir, 'held-by');
  const held = JSON.parse(read(path) || '{}');
  if (held.pid !== process.pid && lives(held.pid, 'scripts/'))
    throw new Error(
      `Vectrum runs on ${dir} already: process ${held.pid}, http://127.0.0.1:${held.port}. Stop it first, or give this start a directory of its own with ${variable}`,
    );
  writeFileSync(path, JSON.stringify({ pid: process.pid, port }));
  process.on('exit', () => rmSync(path, { force: true }));
}

/** Ends a database that an earlier start has left behind, and waits until it has. */
export async function endLeftDatabase(dir) {
  const pid = Number(read(join(dir, 'db.pid')).trim());
  const data = `--datadir=${join(dir, 'data')}`;
  if (!lives(pid, data)) return;
  say(`A database of an earlier start still runs (process ${pid}). It is ended first …`);
  process.kill(pid, 'SIGTERM');
  const until = Date.now() + ENDS_WITHIN_MS;
  while (lives(pid, data)) {
    if (Date.now() > until) throw new Error(`The database of an earlier start (process ${pid}) does not end. End it by hand: kill ${pid}`);
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** Notes that this process runs what was built in this checkout, until it ends. */
export function noteRunning() {
  mkdirSync(RUNNING, { recursive: true });
  for (const pid of readdirSync(RUNNING)) if (!lives(Number(pid), 'scripts/')) rmSync(join(RUNNING, pid), { force: true });
  const path = join(RUNNING, String(process.pid));
  writeFileSync(path, '');
  process.on('exit', () => rmSync(path, { force: true }));
}

/** Refuses to build or install anew beneath a server that runs from this checkout. */
export function mustNotRunFromHere() {
  const pids = existsSync(RUNNING) ? readdirSync(RUNNING).map(Number) : [];
  const live = pids.find((pid) => pid !== process.pid && lives(pid, 'scripts/'));
  if (live)
    throw new Error(
      `Vectrum runs from here (process ${live}), and its sources have changed since it was built. Stop it, then start again: nothing is built beneath a running server`,
    );
}
