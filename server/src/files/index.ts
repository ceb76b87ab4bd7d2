export { FilesModule } from './files.module.js';
export { FileRow } from './files.rows.js';
export { FilesService } from './files.service.js';
export type { Arrived } from './files.service.js';
export { receivedFile } from './received.js';
export type { Upload } from './received.js';
export { sendFile } from './sendFile.js';
