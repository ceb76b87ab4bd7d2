export { DeskCounts } from './deskCounts.service.js';
export { MarksModule } from './marks.module.js';
export { MarkAdjustmentRow, MarkRow, ReleasedMarkRow } from './marks.rows.js';
export { MyMarksService } from './myMarks.service.js';
