import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import type { FileRow } from './files.rows.js';

/** Always as an attachment and never sniffed: what a student hands in must not run as a page of ours. */
export async function sendFile(
  response: Response,
  file: FileRow,
  chunks: AsyncIterable<Buffer>,
): Promise<void> {
  const plainName =
    file.name
      .normalize('NFKD')
      .replace(/[^\x20-\x7e]/g, '')
      .replace(/["\\]/g, '_') || 'file';
  response.status(200).set({
    'Content-Type': /^[\w.+-]+\/[\w.+-]+$/.test(file.mediaType) ? file.mediaType : 'application/octet-stream',
    'Content-Length': file.sizeBytes,
    'Content-Disposition': `attachment; filename="${plainName}"; filename*=UTF-8''${encodeURIComponent(file.name).replace(/['()*]/g, (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`)}`,
    'Content-Security-Policy': "default-src 'none'; sandbox",
    'X-Content-Type-Options': 'nosniff',
    'Cache-Control': 'private, no-store',
  });
  try {
    await pipeline(Readable.from(chunks, { objectMode: false }), response);
  } catch (error) {
    // The reader went away in the middle; there is no one left to tell.
    if ((error as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  }
}
