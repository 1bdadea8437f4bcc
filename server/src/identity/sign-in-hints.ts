import type { SignInHintDto } from './identity.dto.js';

/** Injection token of the people to try a house with; a house that is not tried out names nobody. */
export const SIGN_IN_HINTS = Symbol('sign-in hints');
export type SignInHints = readonly SignInHintDto[];
