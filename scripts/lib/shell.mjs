import { spawn } from 'node:child_process';
import { resolve } from 'node:path';

export const ROOT = resolve(import.meta.dirname, '../..');

/** Runs a command to its end with our terminal; rejects where it fails. */
export function run(command, args, options = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], ...options });
    child.on('error', fail);
    child.on('exit', (code, signal) =>
      code === 0 ? done() : fail(new Error(`${command} ${args.join(' ')} ended with ${code ?? signal}`)),
    );
  });
}

/** Runs a command and returns what it printed, whatever its exit code. */
export function capture(command, args, options = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let out = '';
    let err = '';
    child.stdout.on('data', (d) => (out += d));
    child.stderr.on('data', (d) => (err += d));
    child.on('error', fail);
    child.on('exit', (code) => done({ code, out, err }));
  });
}

export const say = (text) => process.stderr.write(`${text}\n`);

/** Says in one sentence what went wrong and ends. */
export function fail(thrown) {
  process.stderr.write(`${thrown instanceof Error ? thrown.message : String(thrown)}\n`);
  process.exit(1);
}
