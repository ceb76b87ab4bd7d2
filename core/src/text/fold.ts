/** The form in which texts are compared when people search: accents and case do not matter, in any script. */
export function fold(text: string): string {
  if (plain.test(text)) return text.toLowerCase().trim(); // most names, at a tenth of the price
  return text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/ł/gi, 'l')
    .replace(/ø/gi, 'o')
    .replace(/ı/g, 'i')
    .toLowerCase()
    .trim();
}

const plain = /^[\x20-\x7e]*$/;
