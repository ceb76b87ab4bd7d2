/** Addresses are compared without case; the one that was typed first is kept. */
export const sameAddress = (email: string): string => email.trim().toLowerCase();

/** Good enough to send mail to; not the whole grammar of addresses, which nobody's class file uses. */
export function isAddress(text: string): boolean {
  return (
    text.length <= 254 &&
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
