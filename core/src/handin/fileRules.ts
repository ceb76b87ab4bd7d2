import type { KindRules } from '../release/index.js';

/** Whose hand-in it is. */
export type HandInBy = 'group' | 'student';
/** one: a single hand-in; latest: many, the latest counts; all: many, and each adds to those before it. */
export type Attempts = 'one' | 'latest' | 'all';

/** What may be handed in, and how often. */
export interface HandInRules {
  readonly by: HandInBy;
  readonly takesText: boolean;
  readonly mostFiles: number;
  /** Endings in lower case without a dot; none: any. */
  readonly types: readonly string[];
  readonly largestMb: number;
  readonly attempts: Attempts;
}

/** Why a file cannot be added, as facts; sentences are made by `sayFileRefusal`. */
export type FileRefusal =
  | { readonly code: 'wrong-type'; readonly name: string; readonly types: readonly string[] }
  | { readonly code: 'not-what-it-says'; readonly name: string; readonly found: string }
  | { readonly code: 'too-large'; readonly name: string; readonly largestMb: number }
  | { readonly code: 'too-many'; readonly most: number };

export interface OfferedFile {
  readonly name: string;
  readonly sizeBytes: number;
  /** The ending that its bytes speak for; null: they look like no known kind, as plain text does. */
  readonly found: string | null;
}

export const endingOf = (name: string): string =>
  (/\.([\p{L}\p{N}]{1,10})$/u.exec(name)?.[1] ?? '').toLowerCase();

/** Endings under which the same bytes go: office files are ZIP archives, and a picture has two names. */
const sameBytes: readonly (readonly string[])[] = [
  ['zip', 'docx', 'xlsx', 'pptx', 'odt', 'ods', 'odp', 'epub'],
  ['jpg', 'jpeg'],
  ['tif', 'tiff'],
  ['xml', 'svg', 'html', 'htm'],
  ['cfb', 'doc', 'xls', 'ppt'],
  ['mp4', 'm4a', 'm4v', 'mov'],
];
/** Endings whose bytes always tell what they are; a file under such a name that looks like nothing known is not one. */
const tellTale = new Set([
  'pdf',
  'png',
  'jpg',
  'jpeg',
  'gif',
  'webp',
  'zip',
  'docx',
  'xlsx',
  'pptx',
  'odt',
  'ods',
  'odp',
  'mp3',
  'mp4',
  'wav',
]);

/** Whether a file may be added to `already` others. */
export function checkFile(file: OfferedFile, already: number, rules: HandInRules): FileRefusal | null {
  const { name, sizeBytes, found } = file;
  const ending = endingOf(name);
  if (already >= rules.mostFiles) return { code: 'too-many', most: rules.mostFiles };
  if (rules.types.length > 0 && !rules.types.includes(ending))
    return { code: 'wrong-type', name, types: rules.types };
  if (sizeBytes > rules.largestMb * 1024 * 1024)
    return { code: 'too-large', name, largestMb: rules.largestMb };
  const isSame =
    found === ending ||
    sameBytes.some((family) => family.includes(ending) && found !== null && family.includes(found));
  const isKnownOtherwise = found !== null && !isSame && (tellTale.has(ending) || rules.types.length > 0);
  if (isKnownOtherwise || (found === null && tellTale.has(ending)))
    return { code: 'not-what-it-says', name, found: found ?? '' };
  return null;
}

/** A refusal as a sentence that says what to do. */
export function sayFileRefusal(refusal: FileRefusal): string {
  switch (refusal.code) {
    case 'too-many':
      return refusal.most === 1
        ? 'One file is the most here. Delete it to add another.'
        : `${refusal.most} files are the most here. Delete one to add another.`;
    case 'wrong-type':
      return `${refusal.name} is not an allowed type here. Save it as ${refusal.types.map((type) => `.${type}`).join(' or ')} and add it again.`;
    case 'too-large':
      return `${refusal.name} is over ${refusal.largestMb} MB, the most allowed here. Make it smaller and add it again.`;
    case 'not-what-it-says': {
      const what =
        refusal.found === ''
          ? 'does not hold what its name says'
          : `holds a .${refusal.found} file under another name`;
      return `${refusal.name} ${what}. Save it again in its own format and add it then.`;
    }
  }
}

export type HandInAct = 'work' | 'hand-in';

/** Work belongs to the members; staff read it and leave it alone. */
export const handInActs: KindRules<HandInAct> = { acts: { work: ['member'], 'hand-in': ['member'] } };
