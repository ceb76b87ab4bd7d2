export { CalendarModule } from './calendar.module.js';
export { CalendarAddressRow } from './calendar.rows.js';
