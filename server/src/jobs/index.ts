export { Jobs } from './jobs.js';
export { JobsModule } from './jobs.module.js';
export { migrateJobs } from './schema.js';
