export { CopyHeads } from './copyHeads.service.js';
export { MarksInRooms } from './marksInRooms.js';
export { enterRoom, staffOfRoom } from './entering.js';
export { membersByName } from './members.js';
export type { Waiting } from './marksInRooms.js';
export { News } from './news.service.js';
export { RoomsModule } from './rooms.module.js';
export { StaffNews } from './staffNews.service.js';
export { SeenCountRow, SeenRow, StopAnswerRow } from './rooms.rows.js';
