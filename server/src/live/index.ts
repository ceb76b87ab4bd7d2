export { LiveModule } from './live.module.js';
