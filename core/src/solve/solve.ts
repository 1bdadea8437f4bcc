import { solveAllocate } from './allocate.js';
import { solveCartons } from './cartons.js';
import { solveCosting } from './costing.js';
import { solveGs1 } from './gs1.js';
import { solveReplenish } from './replenish.js';
import { solveRoute } from './route.js';
import { solveRounds } from './rounds.js';
import { InputFault } from './input-fault.js';

/** What a solver answers: the document to print and the exit code. */
export interface Solved {
  output: unknown;
  code: 0 | 1;
}

const SOLVERS: Readonly<Record<string, (input: unknown, now: () => number) => unknown>> = {
  gs1: solveGs1,
  costing: solveCosting,
  allocate: solveAllocate,
  route: solveRoute,
  rounds: solveRounds,
  cartons: solveCartons,
  replenish: solveReplenish,
};

/** Runs the computation of a name on a JSON text; `now` tells the milliseconds since the program began, for those that go on for a time. Never throws; a faulty input is answered with its path and code 1. */
export function solve(name: string, text: string, now: () => number = () => 0): Solved {
  try {
    if (!Object.hasOwn(SOLVERS, name))
      throw new InputFault(`There is no computation called "${name}". Known: ${Object.keys(SOLVERS).join(', ')}`, '');
    return { output: SOLVERS[name]?.(parse(text), now), code: 0 };
  } catch (thrown) {
    const fault = thrown instanceof InputFault ? thrown : new InputFault(thrown instanceof Error ? thrown.message : String(thrown), '');
    return { output: { error: { message: fault.message, path: fault.path } }, code: 1 };
  }
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new InputFault('The input is not readable JSON', '');
  }
}
