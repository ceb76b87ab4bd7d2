export { keptDecimal } from './decimal.js';
export { startingWithArticle, withArticle } from './article.js';
export { fold } from './fold.js';
export { countWords } from './words.js';
export { emptyText, placeholderOf, placeholderText, plainText } from './richText.js';
export type { Placeholder, PlaceholderValues, RichTextNode } from './richText.js';
export { counted, namesTogether } from './count.js';
export { storable } from './storable.js';
export { oneLine } from './oneLine.js';
