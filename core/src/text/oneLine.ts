/** Marks that turn the direction of what follows, and signs without width: in a name they are there by accident, or to make it look like another. Joiners
 * stay, which Persian, Indian scripts and emoji are written with. */
const unseen = /[\u00ad\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff]/g;

/** A name or a value as it is kept: on one line, with single blanks, without what cannot be seen, in the one form (NFC) in which equal texts are equal. */
export const oneLine = (text: string): string =>
  text
    .replace(unseen, '')
    .replace(/[\s\u00a0\u0085\u2028\u2029]+/g, ' ')
    .trim()
    .normalize('NFC');
