/** "an event", "a wiki": a noun in lower case with its article, by its first letter. */
export const withArticle = (noun: string): string => `${/^[aeiou]/.test(noun) ? 'an' : 'a'} ${noun}`;

/** The same at the start of a sentence. */
export const startingWithArticle = (noun: string): string => withArticle(noun).replace('a', 'A');
