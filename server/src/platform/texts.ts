import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { problems } from './problems.js';
import type { Changed, TextTask } from './text.thread.js';
import work from './text.thread.js';
import { Thread, threadFile } from './thread.js';

/** So long a text is done with in milliseconds; anything longer goes to a thread, and no one else waits for it. */
const short = 10_000;

/** What is counted in texts. Ask for it before a transaction begins: a long one takes its turn. */
@Injectable()
export class Texts implements OnApplicationShutdown {
  private readonly thread = new Thread<TextTask, number | Changed>(
    threadFile(import.meta.url, './text.thread.js'),
    {
      atOnce: 1,
      mostWaiting: 20,
      longestMs: 10_000,
      mostMemoryMb: 256,
      beyond: () => problems.invalidInput('This text is too long. Split it into two parts.'),
    },
  );

  onApplicationShutdown(): Promise<void> {
    return this.thread.end();
  }

  /** @param owner whose text it is. */
  async words(owner: string, text: string): Promise<number> {
    const task = { kind: 'words', text } as const;
    return (text.length <= short ? work(task) : await this.thread.run(task, { owner })) as number;
  }

  /** How many words were added and removed. */
  async changes(owner: string, before: string, after: string): Promise<Changed> {
    const task = { kind: 'changes', before, after } as const;
    const isShort = before.length + after.length <= short;
    return (isShort ? work(task) : await this.thread.run(task, { owner })) as Changed;
  }
}
