export { NoticeModule } from './notice.module.js';
