export { DealingModule } from './dealing.module.js';
export { ExpertsService } from './experts.service.js';
