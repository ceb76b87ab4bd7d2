export { ShelfModule } from './shelf.module.js';
export { ShelfFileRow, ShelfSeenRow, ShelfVersionRow } from './shelf.rows.js';
