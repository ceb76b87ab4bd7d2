export { SightlinesModule } from './sightlines.module.js';
