export { lettersOf, nameByPattern, namesFor } from './naming.js';
export { fillRoom, mostGroups, sayForecast, sizesByCount, sizesBySize } from './sizes.js';
export type { RoomForecast, SizesForecast, SizesRefused } from './sizes.js';
export { resizeGroups } from './resize.js';
export type { Resizing } from './resize.js';
export { fileNames, setFileNames } from './fileNames.js';
