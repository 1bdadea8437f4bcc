import type { SignInHintDto } from './identity.dto.js';

/** Injection token of the people to try a house with; only a house that is tried out has any. */
export const SIGN_IN_HINTS = Symbol('sign-in hints');
export type SignInHints = readonly SignInHintDto[];
