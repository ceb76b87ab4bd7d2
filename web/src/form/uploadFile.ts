import { onlyLooking, Problem } from '@jigsaw/contract/common';
import type { Schema } from '@jigsaw/contract/common';
import { apiAddress, sitsIn } from '../api/index.js';

export interface Upload<Answer> {
  readonly done: Promise<Answer>;
  readonly cancel: () => void;
}

/** Sends a file's bytes as they are read. fetch cannot tell how far an upload is, so this is the older request.
 * @param address under /api/
 * @param onProgress 0 to 1.
 * @param more of the query, beside the file's name and type.
 * @throws an Error with a sentence for people; nothing of a cancelled or refused file stays. */
export function uploadFile<Answer>(
  address: string,
  answer: Schema<Answer>,
  file: File,
  onProgress: (share: number) => void,
  more: Readonly<Record<string, string>> = {},
): Upload<Answer> {
  if (sitsIn()) return { done: Promise.reject(new Error(onlyLooking.detail)), cancel: () => undefined };
  const request = new XMLHttpRequest();
  const done = new Promise<Answer>((resolve, reject) => {
    request.upload.onprogress = (event) => event.lengthComputable && onProgress(event.loaded / event.total);
    request.onload = () => {
      if (request.status === 200) return resolve(answer.parse(JSON.parse(request.responseText)));
      reject(new Error(sentenceOf(request.responseText)));
    };
    request.onerror = () =>
      reject(new Error(`${file.name} did not arrive: the line to the server broke. Add it again.`));
    request.onabort = () => reject(new Error(`${file.name} was not added.`));
  });
  const query = new URLSearchParams({ ...more, name: file.name, type: file.type });
  request.open('POST', apiAddress(`${address}?${query}`));
  request.setRequestHeader('Content-Type', 'application/octet-stream');
  request.send(file);
  return { done, cancel: () => request.abort() };
}

function sentenceOf(body: string): string {
  try {
    return Problem.parse(JSON.parse(body)).detail;
  } catch {
    return 'The file did not arrive. Add it again.';
  }
}
