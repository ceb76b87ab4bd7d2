export { OwnFilesModule } from './ownFiles.module.js';
export { OwnVersionRow } from './ownFiles.rows.js';
export { OwnFilesService } from './ownFiles.service.js';
