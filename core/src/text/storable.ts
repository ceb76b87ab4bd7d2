/** A text without what no database keeps: NUL, and halves of characters, such as an emoji cut in two leaves. Nobody sees either, and nobody typed them. */
export const storable = (text: string): string =>
  (text.includes('\0') ? text.replaceAll('\0', '') : text).replace(/\p{Cs}/gu, '\ufffd');
