export { audiencesIn, circleOf, usersOf } from './circle.js';
export { noOne, resolver } from './resolve.js';
export type { CourseFacts, Resolved } from './resolve.js';
export { sayTerm } from './sayTerm.js';
export type { TermNames } from './sayTerm.js';
export { fitsTest } from './terms.js';
export type { AttributeTest, AudiencePerson, SavedAudience, Term, Terms } from './terms.js';
