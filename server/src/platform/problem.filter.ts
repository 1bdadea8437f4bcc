import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import { Problem } from './problem.js';

interface BodyError {
  type?: string;
  status?: number;
}

/** Turns whatever was thrown into application/problem+json. Unknown errors are logged and say nothing of their inside. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
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
    this.log.error({ err: thrown, request: request.id, url: request.url }, 'unexpected failure');
    return new Problem(500, 'unknown', 'Something went wrong on our side. Nothing was changed; try again');
  }
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
