import { solveAllocate } from './allocate.js';
import { solveCosting } from './costing.js';
import { solveGs1 } from './gs1.js';
import { InputFault } from './input-fault.js';

/** What a solver answers: the document to print and the exit code. */
export interface Solved {
  output: unknown;
  code: 0 | 1;
}

const SOLVERS: Readonly<Record<string, (input: unknown) => unknown>> = {
  gs1: solveGs1,
  costing: solveCosting,
  allocate: solveAllocate,
};

/** Runs the computation of a name on a JSON text. Never throws; a faulty input is answered with its path and code 1. */
export function solve(name: string, text: string): Solved {
  try {
    if (!Object.hasOwn(SOLVERS, name))
      throw new InputFault(`There is no computation called "${name}". Known: ${Object.keys(SOLVERS).join(', ')}`, '');
    return { output: SOLVERS[name]?.(parse(text)), code: 0 };
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
