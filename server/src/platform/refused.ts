import type { Refusal } from '@vectrum/core/scan';
import { Problem } from './problem.js';

/** A floor rule's refusal as a problem that the phone shows as the same band. */
export const refused = (refusal: Refusal) => new Problem(409, 'refused', refusal.detail, { band: refusal.band, title: refusal.title });
