export { AudienceHearers } from './audienceHearers.js';
export type { AudienceHearer, ChangedAudiences } from './audienceHearers.js';
export { AudiencesModule } from './audiences.module.js';
export { SavedAudienceRow } from './audiences.rows.js';
export { audiencesNow } from './audiencesNow.js';
