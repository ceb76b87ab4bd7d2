import type { WorkFile } from '@jigsaw/contract/handin';

const texts = new Set(['md', 'txt', 'csv', 'tsv']);
export const images: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
};
const largestBytes = 2_000_000;

export const endingOf = (name: string): string => /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';

/** Whether the page itself can show it; all else is downloaded. */
export const isReadable = ({ name, sizeBytes }: WorkFile): boolean =>
  sizeBytes <= largestBytes && (texts.has(endingOf(name)) || Object.hasOwn(images, endingOf(name)));

/** What was written comes before what was measured. */
export const firstToRead = (files: readonly WorkFile[]): WorkFile | undefined =>
  files.find((file) => isReadable(file) && /\.(md|txt)$/i.test(file.name)) ?? files.find(isReadable);
