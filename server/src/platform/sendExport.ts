import type { Response } from 'express';

/** A list as a file. What it holds is known before its headers are set: a refusal must not look like a file that exists. */
export function sendExport(response: Response, name: string, type: string, content: string | Buffer): void {
  response
    .set({
      'Content-Type': type,
      'Content-Disposition': `attachment; filename="${name}"`,
      'Cache-Control': 'private, no-store',
    })
    .send(content);
}
