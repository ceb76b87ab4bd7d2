export { SightlinesModule } from './sightlines.module.js';
export { SightlinesService } from './sightlines.service.js';
