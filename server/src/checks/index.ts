export { ChecksModule } from './checks.module.js';
export { CheckDismissalRow } from './checks.rows.js';
