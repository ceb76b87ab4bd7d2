export { Jobs } from './jobs.js';
export { JobsModule } from './jobs.module.js';
