/** So many files lie on one shelf. */
export const mostFiles = 100;
/** So many versions of one file are kept. */
export const mostVersions = 50;
/** All versions together, those of removed files too. */
export const mostBytes = 1024 ** 3;

/** A file on a shelf, as it is looked at before another is put there. */
export interface Shelved<Id extends string> {
  readonly id: Id;
  readonly newest: { readonly name: string; readonly sha256: string };
  readonly versions: number;
}

interface Shelf<Id extends string> {
  readonly files: readonly Shelved<Id>[];
  /** Of all versions, those of removed files too. */
  readonly bytes: number;
}

interface Given {
  readonly name: string;
  readonly sha256: string;
  readonly sizeBytes: number;
}

export type Put<Id extends string> =
  | { readonly to: 'new' }
  | { readonly to: 'version'; readonly of: Id }
  /** The same bytes under the same name lie there already: it was sent twice. */
  | { readonly to: 'there' }
  | { readonly to: 'refused'; readonly why: 'files' | 'versions' | 'bytes' };

/** What becomes of a file that is put on a shelf. One name is one file: what bears a name that is there already is its next version, so that nothing is replaced.
 * @param files those that are not removed, the newest first. */
export function putOn<Id extends string>({ files, bytes }: Shelf<Id>, given: Given): Put<Id> {
  const namesake = files.find(({ newest }) => isSameName(newest.name, given.name));
  if (namesake?.newest.sha256 === given.sha256) return { to: 'there' };
  if (bytes + given.sizeBytes > mostBytes) return { to: 'refused', why: 'bytes' };
  if (!namesake) return files.length < mostFiles ? { to: 'new' } : { to: 'refused', why: 'files' };
  return namesake.versions < mostVersions
    ? { to: 'version', of: namesake.id }
    : { to: 'refused', why: 'versions' };
}

/** As most file systems hold them for one and the same. */
const isSameName = (one: string, other: string): boolean => plain(one) === plain(other);
const plain = (name: string): string => name.normalize('NFC').toLowerCase();

/** Why nothing can be put there, and what to do. */
export function sayRefusal(why: 'files' | 'versions' | 'bytes'): string {
  switch (why) {
    case 'files':
      return `${mostFiles} files lie on this shelf, the most it holds. Remove one that is not needed any more.`;
    case 'versions':
      return `This file has ${mostVersions} versions, the most that are kept. Add it under another name.`;
    case 'bytes':
      return 'This shelf is full: 1 GB is the most, with earlier versions and removed files. Share the file as a link in a discussion.';
  }
}
