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
