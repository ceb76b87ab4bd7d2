export { AuditModule } from './audit.module.js';
