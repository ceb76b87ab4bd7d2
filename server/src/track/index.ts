export { TrackModule } from './track.module.js';
