/** Every code a problem can have; clients compare these, people read the sentence. */
export type ProblemCode =
  | 'form'
  | 'json'
  | 'file'
  | 'too-large'
  | 'not-found'
  | 'signed-out'
  | 'not-allowed'
  | 'wrong-site'
  | 'sign-in'
  | 'device'
  | 'idempotency-key'
  | 'key-reused'
  | 'version'
  | 'state'
  | 'taken'
  | 'refused'
  | 'late'
  | 'made-by'
  | 'stock'
  | 'undo'
  | 'carrier'
  | 'scale'
  | 'signature'
  | 'away'
  | 'busy'
  | 'unknown';

/** A request that cannot be done, with what to do about it. Thrown by services; nothing has been changed. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: ProblemCode,
    /** One sentence for the person who asked. */
    readonly detail: string,
    readonly extra: { fields?: Record<string, string>; band?: string; title?: string } = {},
  ) {
    super(detail);
  }
}

export const notFound = (what: string) => new Problem(404, 'not-found', `${what} is not known here. Check the code and try again`);
export const badState = (detail: string) => new Problem(409, 'state', detail);
export const badForm = (fields: Record<string, string>) => new Problem(400, 'form', Object.values(fields).join('. '), { fields });
