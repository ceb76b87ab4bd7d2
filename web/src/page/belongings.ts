/** Kept for anyone who uses this browser, not for one person. */
const everybodys: ReadonlySet<string> = new Set(['jigsaw.theme']);
const ownerKey = 'jigsaw.belongs-to';

/** What this browser keeps belongs to one person: anyone who comes after them in the same tab or browser finds nothing of theirs. */
export function belongTo(personId: string): void {
  for (const storage of [localStorage, sessionStorage]) {
    const owner = storage.getItem(ownerKey);
    if (owner === personId) continue;
    if (owner !== null) empty(storage);
    storage.setItem(ownerKey, personId);
  }
}

/** Signed out: nothing stays. */
export function forgetBelongings(): void {
  for (const storage of [localStorage, sessionStorage]) empty(storage);
}

function empty(storage: Storage): void {
  for (const key of Object.keys(storage)) if (!everybodys.has(key)) storage.removeItem(key);
}
