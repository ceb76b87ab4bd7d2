export { RosterModule } from './roster.module.js';
export { CourseRow, EnrolmentRow, RosterChangeRow } from './roster.rows.js';
export { Viewers } from './viewers.js';
