import { type CanActivate, type ExecutionContext, Injectable, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { DataSource } from 'typeorm';
import { one, type Person, Problem, type SignedRequest, type Tx } from '../platform/index.js';
import type { Right } from './duties.js';
import { cookie, SESSION } from './cookies.js';
import { SessionService } from './session.service.js';

export const ACCESS = 'vectrum:access';

/** Who may use a route: those who have one of the rights named. A route without this is refused to everybody. */
export const Access = (...rights: [Right, ...Right[]]) => SetMetadata(ACCESS, rights);

const COSTS = 'costs';
/** What the route shows or takes are amounts: whoever may not see costs has no use for it, whatever their duties. */
export const OfCosts = () => SetMetadata(COSTS, true);

const EVERYWHERE = 'everywhere';
/** What the route shows is the whole house's and cannot be parted by site: it is for those who are at every one. */
export const OfTheHouse = () => SetMetadata(EVERYWHERE, true);

/** Whether somebody is at every site of the house. */
export async function isEverywhere(tx: Pick<Tx, 'query'>, person: Person): Promise<boolean> {
  return !(await one(tx, 'SELECT id FROM site WHERE id NOT IN (?) LIMIT 1', [[0, ...person.siteIds]]));
}

/** Refuses whoever is not at every site of the house. */
export async function mustBeEverywhere(tx: Pick<Tx, 'query'>, person: Person): Promise<void> {
  if (!(await isEverywhere(tx, person)))
    throw new Problem(403, 'not-allowed', 'This is the whole house’s. It is for those who are at every site');
}

/** Default deny: finds the person behind the session cookie and compares rights. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly sessions: SessionService,
    private readonly source: DataSource,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const rights = this.reflector.getAllAndOverride<Right[] | undefined>(ACCESS, [context.getHandler(), context.getClass()]);
    if (!rights) throw new Problem(403, 'not-allowed', 'Nobody has been given this');
    const request = context.switchToHttp().getRequest<SignedRequest>();
    const found = await this.sessions.find(cookie(request, SESSION));
    if (found) {
      request.person = found.person;
      request.deviceId = found.deviceId;
    }
    if (rights.includes('public')) return true;
    if (!found) throw new Problem(401, 'signed-out', 'Sign in first');
    if (!rights.includes('signed-in') && !rights.some((right) => found.person.rights.has(right)))
      throw new Problem(403, 'not-allowed', `This needs the duty of ${rights.join(' or ')}. Ask whoever sets up people`);
    const ofCosts = this.reflector.getAllAndOverride<boolean | undefined>(COSTS, [context.getHandler(), context.getClass()]);
    if (ofCosts && !found.person.seesCosts) throw new Problem(403, 'not-allowed', 'This is all amounts. Ask somebody who may see costs');
    if (this.reflector.getAllAndOverride<boolean | undefined>(EVERYWHERE, [context.getHandler(), context.getClass()]))
      await mustBeEverywhere(this.source, found.person);
    return true;
  }
}

/** Refuses a person without a right, where the right depends on more than the route. */
export function mustHave(person: Person, right: Right, what = 'This'): void {
  if (!person.rights.has(right))
    throw new Problem(403, 'not-allowed', `${what} needs the right to ${right.replace('-', ' ')}. Ask whoever sets up people`);
}
