import { reasoningOf } from './dealMessages.js';
import type { Question, Told } from './dealMessages.js';

/** Works off the page's own thread; whoever started it hears how far it is, and stops it by ending it. */
self.onmessage = ({ data }: MessageEvent<Question>) => {
  const tell = (told: Told) => self.postMessage(told);
  const run = reasoningOf(data);
  for (;;) {
    const next = run.next();
    if (next.done) return tell(next.value);
    tell(next.value);
  }
};
