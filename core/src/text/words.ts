const segmenter = new Intl.Segmenter('en', { granularity: 'word' });
/** A Latin word with signs around it, or signs alone: what most of a text is made of, told without the segmenter. Underscores and signs that are
 * letters (a circled a) are the segmenter's to judge. */
const plainWord =
  /^(?:(?![\p{Pc}\p{Alphabetic}])[\p{P}\p{S}])*\p{Script=Latin}+(?:(?![\p{Pc}\p{Alphabetic}])[\p{P}\p{S}])*$/u;
const signs = /^(?:(?![\p{Pc}\p{Alphabetic}])[\p{P}\p{S}])+$/u;
/** The segmenter's time grows with the square of what it is given; so it is given little at once. */
const pieceLength = 300;
/** What a word is, can hang on the two signs after it ("can’t", "3,141"): the last segments of a piece are looked at again with the next one. */
const overlap = 4;

/** Words by the Unicode word rules (UAX 29), so that scripts without spaces count too; in linear time. */
export function countWords(text: string): number {
  let count = 0;
  for (const { 0: token } of text.matchAll(/\S+/g))
    count += token.length <= pieceLength ? wordsIn(token) : wordsOfLong(token);
  return count;
}

function wordsIn(token: string): number {
  if (plainWord.test(token)) return 1;
  if (signs.test(token)) return 0;
  let count = 0;
  for (const { isWordLike } of segmenter.segment(token)) if (isWordLike) count += 1;
  return count;
}

/** Of a text without blanks, piece by piece. */
function wordsOfLong(text: string): number {
  let count = 0;
  let length = pieceLength;
  for (let at = 0; at < text.length;) {
    const isLast = at + length >= text.length;
    const segments = [...segmenter.segment(text.slice(at, at + length))];
    const whole = isLast ? segments : segments.slice(0, -overlap);
    const last = whole.at(-1);
    if (last === undefined) {
      length *= 2; // one word that is longer than the piece
      continue;
    }
    count += whole.filter(({ isWordLike }) => isWordLike).length;
    at += last.index + last.segment.length;
    length = pieceLength;
  }
  return count;
}
