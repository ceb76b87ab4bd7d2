export { ForeseenModule } from './foreseen.module.js';
