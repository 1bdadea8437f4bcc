import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';

/** Who is signed in, and which of the house's devices this is. */
export const SESSION = 'vectrum_session';
export const DEVICE = 'vectrum_device';

export const cookie = (request: Request, name: string): string | undefined => (request.cookies as Record<string, string | undefined>)[name];

/** The token of the session that a request comes with. */
export const SessionToken = createParamDecorator(
  (_: unknown, context: ExecutionContext): string => cookie(context.switchToHttp().getRequest<Request>(), SESSION) ?? '',
);
