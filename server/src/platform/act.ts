import { createHash } from 'node:crypto';
import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import { Problem } from './problem.js';
import { wholeOf } from './query.js';

/** The person behind a request, with what they may do and where. */
export interface Person {
  id: number;
  name: string;
  rights: ReadonlySet<string>;
  siteIds: readonly number[];
  seesCosts: boolean;
  /** Has the duty of an owner: confirms what others may only propose. */
  isOwner: boolean;
}

/** Who, where, when and how of one act; passed to every service that changes something. */
export interface Act {
  /** The Idempotency-Key: the same key is carried out once. */
  key: string;
  person: Person;
  deviceId: number | null;
  /** What the device's clock said, where it told us. */
  deviceAt: Date | null;
  /** When it was done, by the server's clock, where that is known to differ from now: a phone without a network tells later. */
  madeAt?: Date;
  /** Who sent it, where that was another person on the same device. */
  sentBy?: number;
}

export type SignedRequest = Request & { person?: Person; deviceId?: number | null };

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export function keyOf(request: Request): string {
  const key = request.header('idempotency-key') ?? '';
  if (!UUID.test(key)) throw new Problem(400, 'idempotency-key', 'Send an Idempotency-Key header with a UUID of your own making');
  return key.toLowerCase();
}

/** The act for a part of what is asked: a key of its own, the same each time the whole is sent. */
export function partOf(act: Act, part: string): Act {
  const hash = createHash('sha256').update(`${act.key}/${part}`).digest('hex');
  const key = `${hash.slice(0, 8)}-${hash.slice(8, 12)}-4${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
  return { ...act, key };
}

/** A device's clock can be years wrong, but not by more: beyond that it tells nothing. */
const MOST_WRONG_MS = 20 * 365 * 86_400_000;

/** What a device's clock said; null where that is no time, or none that a clock of ours could show. */
export function clockOf(text: string | undefined): Date | null {
  const at = Date.parse(text ?? '');
  return Math.abs(at - Date.now()) <= MOST_WRONG_MS ? new Date(at) : null;
}

/** The act behind a mutating request; refuses one without a key. */
export const actOf = (_: unknown, context: ExecutionContext): Act => {
  const request = context.switchToHttp().getRequest<SignedRequest>();
  if (!request.person) throw new Problem(401, 'signed-out', 'Sign in first');
  return {
    key: keyOf(request),
    person: request.person,
    deviceId: request.deviceId ?? null,
    deviceAt: clockOf(request.header('device-time')),
  };
};
export const Acting = createParamDecorator(actOf);

/** The person behind a reading request. */
export const Reader = createParamDecorator((_: unknown, context: ExecutionContext): Person => {
  const person = context.switchToHttp().getRequest<SignedRequest>().person;
  if (!person) throw new Problem(401, 'signed-out', 'Sign in first');
  return person;
});

/** The sites that a request asks about: the one that `?site=` names, otherwise all of the person's. Never one of others. */
export const AtSites = createParamDecorator((_: unknown, context: ExecutionContext): readonly number[] => {
  const request = context.switchToHttp().getRequest<SignedRequest>();
  if (!request.person) throw new Problem(401, 'signed-out', 'Sign in first');
  const asked = wholeOf(request.query['site'], 0);
  if (asked === 0) return request.person.siteIds;
  mustBeAt(request.person, asked);
  return [asked];
});

/** Refuses a person who has no business at a site. */
export function mustBeAt(person: Person, siteId: number): void {
  if (!person.siteIds.includes(siteId))
    throw new Problem(403, 'wrong-site', 'You are not set up for this site. Ask whoever sets up people');
}
