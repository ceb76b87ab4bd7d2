import type { ClientRequest } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { sure } from '@jigsaw/core/lists';
import type { Browser } from './testServer.js';

export interface Following {
  /** What kinds of change were heard since the last time, in order, once this one is among them. */
  until(type: string): Promise<readonly string[]>;
  /** Resolves when the server has ended the stream. */
  readonly over: Promise<void>;
  stop(): void;
}

/** Never what is tested: a machine that is busy with other things answers late. */
const patienceMs = 60_000;

/** Someone's page, open on a course and listening to what changes in it.
 * @param sitIn before the address: of a page that sits in. */
export async function follow(browser: Browser, courseId: string, sitIn = ''): Promise<Following> {
  const heard: string[] = [];
  // The request is the browser's, with its address and cookie; it would wait for the end of the answer, and this one has none.
  const stream = (
    browser.get(`${sitIn}/api/courses/${courseId}/changes`) as unknown as { request(): ClientRequest }
  ).request();
  let isOpen = false;
  let isOver = false;
  const over = new Promise<void>((resolve) => {
    stream.on('response', (response) => {
      response.setEncoding('utf8');
      response.on('data', (text: string) => {
        isOpen = true;
        for (const [, type] of text.matchAll(/data: \{"type":"([^"]*)"/g)) heard.push(sure(type));
      });
      response.on('end', () => {
        isOver = true;
        resolve();
      });
      response.on('error', () => undefined); // it was stopped
    });
  });
  stream.on('error', () => undefined);
  stream.end();
  const waitFor = async (what: string, isThere: () => boolean) => {
    for (let waited = 0; !isThere(); waited += 20) {
      // The server ends a stream when it can no longer say what happened; then nothing more will come.
      if (isOver || waited > patienceMs)
        throw new Error(
          `${what} did not come${isOver ? ', the stream is over' : ''}; heard: ${heard.join(', ') || 'nothing'}`,
        );
      await wait(20);
    }
  };
  await waitFor('the stream', () => isOpen);
  return {
    async until(type) {
      await waitFor(type, () => heard.includes(type));
      return heard.splice(0);
    },
    over,
    stop: () => stream.destroy(),
  };
}
