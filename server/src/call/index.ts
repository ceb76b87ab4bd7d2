export { CallModule } from './call.module.js';
export { CallDoorRow, CallVisitRow } from './call.rows.js';
