/** The form in which texts are compared when people search: accents and case do not matter, in any script. */
export function fold(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/ł/gi, 'l')
    .replace(/ø/gi, 'o')
    .replace(/ı/g, 'i')
    .toLowerCase()
    .trim();
}
