export { randomFrom, shuffle, shuffled } from './random.js';
