export { LiveModule } from './live.module.js';
export { Streams } from './streams.js';
