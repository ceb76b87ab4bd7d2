/** A name or a value as it is kept: on one line, with single blanks, in the one form (NFC) in which equal texts are equal. */
export const oneLine = (text: string): string =>
  text
    .replace(/[\s\u00a0]+/g, ' ')
    .trim()
    .normalize('NFC');
