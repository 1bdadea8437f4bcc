import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import { Problem } from './problem.js';

/** The version a client last saw, from If-Match: "3". */
export const seenVersion = (_: unknown, context: ExecutionContext): number => {
  const header = context.switchToHttp().getRequest<Request>().header('if-match') ?? '';
  const version = Number(/^(?:W\/)?"?(\d{1,9})"?$/.exec(header)?.[1]);
  if (!Number.isInteger(version)) throw new Problem(428, 'version', 'Send If-Match with the version that you last saw');
  return version;
};
export const IfMatch = createParamDecorator(seenVersion);

/** Refuses a change made from an older version than the one kept. */
export function mustMatch(kept: number, seen: number): void {
  if (kept !== seen) throw new Problem(412, 'version', 'Somebody changed this meanwhile. Look at what is there now, then change it again');
}
