export { DecimalInLine, NumberInLine, OptionCard, OptionCards, Sentence } from './options.js';
