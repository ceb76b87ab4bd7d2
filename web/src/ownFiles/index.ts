export { OwnFilesPart } from './OwnFilesPart.js';
export { sayVersion, VersionedFile, VersionedFiles } from './VersionedFile.js';
