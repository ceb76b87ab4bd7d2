export { PracticeModule } from './practice.module.js';
