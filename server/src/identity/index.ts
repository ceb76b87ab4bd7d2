export { accountNames } from './accounts.js';
export { IdentityModule } from './identity.module.js';
export { PersonRow } from './identity.rows.js';
export type { OpenedLink } from './people.service.js';
export { PeopleService } from './people.service.js';
export { SessionGuard } from './session.guard.js';
export { SessionService } from './session.service.js';
export { CurrentPerson, CurrentSession, Public } from './signedIn.js';
export type { SignedIn } from './signedIn.js';
