export { WikiModule } from './wiki.module.js';
export { WikiPageRow, WikiRevisionRow } from './wiki.rows.js';
