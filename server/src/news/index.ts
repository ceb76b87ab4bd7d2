export { NewsModule } from './news.module.js';
export { SeenRow } from './news.rows.js';
export { News } from './news.service.js';
export type { CopyNews } from './news.service.js';
