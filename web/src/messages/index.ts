export { WriteButton } from './WriteButton.js';
export { WriteSheet } from './WriteSheet.js';
