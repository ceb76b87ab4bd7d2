export { RosterModule } from './roster.module.js';
export { CourseRow, EnrolmentRow } from './roster.rows.js';
export { Viewers } from './viewers.js';
