/** Soft hyphens, zero-width and direction marks: they come along with what is copied, and no one sees them. */
const unseen = /[\u00ad\u061c\u180e\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufeff]/g;

/** An address as it is kept: without what cannot be seen, and accents in one form, so that one address is one, whatever wrote it. */
export const tidyAddress = (text: string): string => text.replace(unseen, '').normalize('NFC').trim();

/** Addresses are compared without case; the one that was typed first is kept. */
export const sameAddress = (email: string): string => tidyAddress(email).toLowerCase();

/** Good enough to send mail to; not the whole grammar of addresses, which no one's class file uses. */
export function isAddress(text: string): boolean {
  return (
    text.length <= 254 &&
    !/\p{Cc}/u.test(text) &&
    /^[^\s@"(),:;<>[\]\\]+@[^\s@"(),:;<>[\]\\]+\.[^\s@"(),:;<>[\]\\.]{2,}$/u.test(text) &&
    !text.includes('..')
  );
}

/** The word a roster is sorted by: the family name, else the last word of the Latin reading or the name. */
export function sortName(person: {
  readonly name: string;
  readonly familyName: string | null;
  readonly reading: string | null;
}): string {
  return person.familyName ?? (person.reading ?? person.name).trim().split(/\s+/).at(-1) ?? person.name;
}
