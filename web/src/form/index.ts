export { DelimiterChoice, isDelimiter } from './DelimiterChoice.js';
export { DecimalInLine, NumberInLine, OptionCard, OptionCards, Sentence } from './options.js';
