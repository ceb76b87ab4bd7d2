export { MailModule } from './mail.module.js';
export { MailRow } from './mail.rows.js';
export { MailService } from './mail.service.js';
