export { ResourceModule } from './resource.module.js';
