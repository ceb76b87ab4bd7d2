export { OutlineModule } from './outline.module.js';
export { HeadingRow, OutlinePlaceRow } from './outline.rows.js';
