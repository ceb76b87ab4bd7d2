export { AwaitedPlaces } from './awaitedPlaces.js';
export { GroupWork } from './groupWork.js';
export type { Credited, WorkOfGroups } from './groupWork.js';
export { seatsForLatecomers } from './latecomers.js';
export { Memberships } from './memberships.js';
export { PlacingModule } from './placing.module.js';
export { AwaitedPlaceRow, MembershipRow } from './placing.rows.js';
export { SetCopies } from './setCopies.service.js';
export { countStudentsToPlace } from './studentsToPlace.js';
