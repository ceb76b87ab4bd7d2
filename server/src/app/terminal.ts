import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';

/** Someone at a terminal who can be asked. */
export interface Terminal {
  ask(question: string): Promise<string>;
  /** What is typed does not appear: passwords would stay in the window. */
  askSecret(question: string): Promise<string>;
  close(): void;
}

export function openTerminal(input: NodeJS.ReadableStream, screen: NodeJS.WritableStream): Terminal {
  let isMuted = false;
  const output = new Writable({
    write(piece: Buffer, _encoding, done) {
      if (!isMuted) screen.write(piece);
      done();
    },
  });
  const lines = createInterface({ input, output, terminal: true });
  // At a prompt the terminal hands Ctrl-C to us as a key; it must still stop all that was started.
  lines.on('SIGINT', () => {
    lines.close();
    process.kill(process.pid, 'SIGINT');
  });
  return {
    ask: (question) => lines.question(question),
    async askSecret(question) {
      screen.write(question);
      isMuted = true;
      const answer = await lines.question('');
      isMuted = false;
      screen.write('\n');
      return answer;
    },
    close: () => lines.close(),
  };
}
