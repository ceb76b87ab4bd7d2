export { MailModule } from './mail.module.js';
export { MailRow } from './mail.rows.js';
export { MailService } from './mail.service.js';
export { MailCarrier } from './mailCarrier.js';
export { MailedLinks, untilWords } from './mailedLinks.js';
