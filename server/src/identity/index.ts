/** People, duties, devices, sessions, and who may use which route. */
export { Access, AccessGuard, isEverywhere, mustBeEverywhere, mustHave, OfCosts, OfTheHouse } from './access.js';
export { SessionToken } from './cookies.js';
export { DeviceService } from './device.service.js';
export { type Duty, type Right, rightsOf } from './duties.js';
export { IdentityModule } from './identity.module.js';
export { PeopleQueries } from './people.queries.js';
export { joinSites, PeopleService } from './people.service.js';
export { newToken, tokenHash } from './secrets.js';
export { SessionService } from './session.service.js';
export { SIGN_IN_HINTS } from './sign-in-hints.js';
