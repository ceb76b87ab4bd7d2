import type { Request } from 'express';
import type { Readable } from 'node:stream';
import { problems } from '../platform/problems.js';

const longestFileName = 255;

/** A file on its way in. */
export interface Upload {
  readonly name: string;
  readonly mediaType: string;
  /** As it is announced; null: it is not. */
  readonly sizeBytes: number | null;
  readonly source: Readable;
}

/** The file whose bytes are the body of a request, with its name and type as its address tells them.
 * @throws invalid-input for a name that no file can have. */
export function receivedFile(request: Request, name: unknown, type: unknown): Upload {
  if (!request.is('application/octet-stream'))
    throw problems.invalidInput('Send the bytes of one file as application/octet-stream.');
  const tidyName = typeof name === 'string' ? name.replace(/[\p{Cc}\p{Cf}/\\]/gu, '').trim() : '';
  if (tidyName === '' || tidyName.length > longestFileName)
    throw problems.invalidInput(`A file needs a name of at most ${longestFileName} characters.`);
  const announced = Number(request.headers['content-length']);
  return {
    name: tidyName,
    mediaType: mediaTypeOf(type),
    sizeBytes: Number.isFinite(announced) ? announced : null,
    source: request,
  };
}

/** As the browser says it; what is no media type is a file like any other. */
const mediaTypeOf = (said: unknown): string =>
  typeof said === 'string' && /^[\w.+-]{1,60}\/[\w.+-]{1,80}(;[\x20-\x7e]{0,60})?$/.test(said)
    ? said
    : 'application/octet-stream';
