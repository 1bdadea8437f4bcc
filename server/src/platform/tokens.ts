/** Injection tokens of things that are not classes of ours. */
export const LOGGER = Symbol('logger');
