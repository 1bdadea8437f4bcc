import type { NextFunction, Request, Response } from 'express';
import { Problem } from './problem.js';

/** No form of ours is half as deep. What reads a body goes down into it by recursion, and must come up again. */
const DEEPEST = 40;
/** What checks forms takes a tenth of a millisecond for each object in one, in which nothing else is answered. */
const MOST_OBJECTS = 1_500;
/** Those with more rows check them in their own way. */
const MANY_ROWS = /^\/api\/labels\/(pdf|print)$/;
const MOST_VALUES = 60_000;

/**
 * What is wrong with the shape of a body: nested more deeply than `most`, of more objects than `objects`, or a list where the element of a list belongs, which
 * no form of ours has and which what checks forms looks through. Linear in its size, without recursion.
 */
export function misshapen(value: unknown, most: number, objects: number): 'deep' | 'long' | 'list in a list' | null {
  let seen = 0;
  let values = 0;
  const waiting: [value: unknown, depth: number][] = [[value, 0]];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [inner, depth] = next;
    if (typeof inner !== 'object' || inner === null || Buffer.isBuffer(inner)) continue;
    if (depth >= most) return 'deep';
    if (!Array.isArray(inner) && ++seen > objects) return 'long';
    for (const one of Object.values(inner)) {
      if (Array.isArray(inner) && Array.isArray(one)) return 'list in a list';
      if (++values > MOST_VALUES) return 'long';
      waiting.push([one, depth + 1]);
    }
  }
  return null;
}

/** Refuses a body that has no shape that any form has, before anything reads it. */
export function shallow(request: Request, _response: Response, next: NextFunction): void {
  const fault = misshapen(request.body, DEEPEST, MANY_ROWS.test(request.path) ? Infinity : MOST_OBJECTS);
  if (fault === null) return next();
  if (fault === 'long') return next(new Problem(413, 'too-large', 'There is more in this than one request may carry. Send it in parts'));
  const says = fault === 'deep' ? `This is nested more than ${DEEPEST} deep` : 'There is a list here where one of its elements belongs';
  next(new Problem(400, 'form', `${says}. Send it as the API’s document describes it`));
}
