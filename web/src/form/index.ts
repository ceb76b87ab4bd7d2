export type { Uploads } from './uploads.js';
export { ArrivingFiles, UploadFaults, useUploads } from './uploads.js';
export { FileLinks, saySize } from './FileLinks.js';
export { canRecord } from './useRecorder.js';
export { RecordSheet } from './RecordSheet.js';
export { NotRead, readApart } from './readApart.js';
export type { Readable } from './reading.js';
export { DelimiterChoice, isDelimiter } from './DelimiterChoice.js';
export {
  DecimalInLine,
  NumberInLine,
  OptionCard,
  OptionCards,
  Sentence,
  ToggleCard,
  ToggleCards,
} from './options.js';
