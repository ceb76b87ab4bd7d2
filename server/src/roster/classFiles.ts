import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Delimiter } from '@jigsaw/core/files';
import type { Paste, ReadTable, TableChoice } from '@jigsaw/core/roster';
import { longestReadSeconds, readPaste } from '@jigsaw/core/roster';
import { problems } from '../platform/problems.js';
import { goneOfRequest } from '../platform/requestContext.js';
import { Thread, threadFile } from '../platform/thread.js';
import type { ReadEnd, ReadTask } from './read.thread.js';

/** Reading ends when the person who asked for it is gone. */
const whileWaitedFor = () => {
  const signal = goneOfRequest();
  return signal ? { signal } : {};
};

/** So little text, line by line, is read at once. */
const shortPaste = 20_000;

/** Reads class lists within limits of time and memory, apart from the thread that serves everyone. */
@Injectable()
export class ClassFiles implements OnApplicationShutdown {
  private readonly thread = new Thread<ReadTask, ReadEnd>(threadFile(import.meta.url, './read.thread.js'), {
    atOnce: 1,
    mostWaiting: 5,
    longestMs: longestReadSeconds * 1000,
    mostMemoryMb: 512,
    beyond: () =>
      problems.unreadableFile(
        'This is too much to be read as a class list. Save the list alone as CSV and import that.',
      ),
  });

  onApplicationShutdown(): Promise<void> {
    return this.thread.end();
  }

  /** @param owner whose list it is. */
  async paste(owner: string, text: string, choice: TableChoice): Promise<Paste> {
    if (text.length <= shortPaste) return readPaste(text, choice);
    return (await this.thread.run({ kind: 'paste', text, choice }, { owner, ...whileWaitedFor() })) as Paste;
  }

  async file(
    owner: string,
    bytes: Uint8Array<ArrayBuffer>,
    delimiter: Delimiter | null,
    choice: TableChoice,
  ): Promise<ReadTable> {
    return (await this.thread.run(
      { kind: 'file', bytes, delimiter, choice },
      { owner, transferList: [bytes.buffer], ...whileWaitedFor() },
    )) as ReadTable;
  }

  async archive(owner: string, bytes: Uint8Array<ArrayBuffer>): Promise<ReadTable> {
    return (await this.thread.run(
      { kind: 'archive', bytes },
      { owner, transferList: [bytes.buffer], ...whileWaitedFor() },
    )) as ReadTable;
  }
}
