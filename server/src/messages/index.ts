export { MessagesModule } from './messages.module.js';
export { MessageRow, MessageSeenRow, SendingRow, ThreadRow } from './messages.rows.js';
export { MessagesService } from './messages.service.js';
