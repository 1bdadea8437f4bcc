import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import { QueryFailedError } from 'typeorm';
import { Problem } from './problem.js';

interface BodyError {
  type?: string;
  status?: number;
}

/** Requests that meet the database away within this time of each other meet the same outage. */
const OUTAGE_MS = 60_000;
const RETRY_AFTER_S = '5';

/** Turns whatever was thrown into application/problem+json. Unknown errors are logged and say nothing of their inside. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private toldAt = -Infinity;

  constructor(private readonly log: Logger) {}

  catch(thrown: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const request = http.getRequest<Request & { id?: string }>();
    const response = http.getResponse<Response>();
    const problem = this.problemOf(thrown, request);
    if (response.headersSent) {
      response.end();
      return;
    }
    if (problem.status === 503) response.setHeader('retry-after', RETRY_AFTER_S);
    response
      .status(problem.status)
      .type('application/problem+json')
      .send(
        JSON.stringify({
          type: `urn:vectrum:problem:${problem.code}`,
          status: problem.status,
          code: problem.code,
          ...problem.extra,
          detail: problem.detail,
          request: request.id,
        }),
      );
  }

  /** One line for an outage, not one for each request that meets it. */
  private tellAway(thrown: unknown): void {
    const now = Date.now();
    if (now - this.toldAt > OUTAGE_MS) this.log.error({ err: thrown }, 'the database is away');
    this.toldAt = now;
  }

  private problemOf(thrown: unknown, request: Request & { id?: string }): Problem {
    if (thrown instanceof Problem) return thrown;
    const body = thrown as BodyError;
    if (body?.type === 'entity.too.large') return new Problem(413, 'too-large', 'That is more than one request may carry');
    if (body?.type === 'entity.parse.failed') return new Problem(400, 'json', 'The request is not readable JSON');
    if (body?.type?.startsWith('encoding') || body?.type?.startsWith('charset') || body?.type?.startsWith('request.')) {
      return new Problem(body.status ?? 400, 'json', 'The request is not readable');
    }
    if (thrown instanceof URIError) return new Problem(400, 'form', 'The address is not readable');
    if (thrown instanceof HttpException) return fromHttp(thrown);
    if (isAway(thrown)) {
      this.tellAway(thrown);
      return new Problem(503, 'away', 'The house cannot reach its books at the moment. Nothing was changed; try again in a moment');
    }
    if (isMisfit(thrown)) {
      this.log.warn({ err: thrown, request: request.id, url: request.url }, 'a value does not fit');
      return new Problem(400, 'form', 'Something here is longer or larger than it can be kept. Nothing was changed; look at it once more');
    }
    this.log.error({ err: thrown, request: request.id, url: request.url }, 'unexpected failure');
    return new Problem(500, 'unknown', 'Something went wrong on our side. Nothing was changed; try again');
  }
}

/** What a driver says where the database is gone, stands still, or has thrown everybody out. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_STATEMENT_TIMEOUT',
]);
const CLOSED = /closed state|connection is closed|Pool is closed/i;

/** Whether the database is not to be had at the moment, as against a statement that is wrong. */
export function isAway(thrown: unknown): boolean {
  const { code, message } = ((thrown instanceof QueryFailedError ? thrown.driverError : thrown) ?? {}) as {
    code?: unknown;
    message?: unknown;
  };
  return AWAY.has(String(code)) || CLOSED.test(String(message));
}

/** What the database says of a value that is to be kept and that no form should have let through: the last net beneath the forms' own bounds. */
const MISFIT = new Set(['ER_WARN_DATA_OUT_OF_RANGE', 'ER_DATA_TOO_LONG', 'ER_TRUNCATED_WRONG_VALUE', 'ER_TRUNCATED_WRONG_VALUE_FOR_FIELD']);

function isMisfit(thrown: unknown): boolean {
  return thrown instanceof QueryFailedError && MISFIT.has(String((thrown.driverError as { code?: unknown }).code));
}

function fromHttp(thrown: HttpException): Problem {
  const status = thrown.getStatus();
  if (status === 404) return new Problem(404, 'not-found', 'There is nothing at this address');
  if (status === 413) return new Problem(413, 'too-large', 'That is more than one request may carry');
  // Nest wraps the body reader's complaint, so its words are all there is to tell by.
  if (status === 400 && /JSON|Unexpected (token|end)/.test(thrown.message))
    return new Problem(400, 'json', 'The request is not readable JSON');
  return new Problem(status, 'form', 'The request cannot be read as it stands');
}
