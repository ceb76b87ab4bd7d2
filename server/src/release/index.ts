export { Gate } from './gate.js';
export type { CopyAccess } from './gate.js';
export { ReleaseModule } from './release.module.js';
export { ActivityRow, CopyRow, ReleaseRow } from './release.rows.js';
export { plainDecimal } from './release.service.js';
