import { proxy, wrap } from 'comlink';
import { DealLine } from '@jigsaw/contract/dealing';
import type { DealProblem } from '@jigsaw/core/dealing';
import { unpackDeal } from '@jigsaw/core/dealing';
import { sure } from '@jigsaw/core/lists';
import { problemOf } from '../api/index.js';
import { answer } from './dealMessages.js';
import type { Question, Told } from './dealMessages.js';

/** Of more students than these the deal is worked out by the server, which has the memory and the time for it. */
const mostInPage = 2_000;

/** Asks in a worker of the page, or, for a very large class, the server.
 * @returns what ends it before its time. */
export function ask(courseId: string, question: Question, hear: (told: Told) => void): () => void {
  if (question.kind === 'deal' && question.problem.students.length > mostInPage) {
    const gone = new AbortController();
    void askServer(courseId, question.problem, hear, gone.signal);
    return () => gone.abort();
  }
  // Where there are no workers it is done at once; a test has none.
  if (typeof Worker === 'undefined') {
    answer(question, (told) => told.kind !== 'going' && hear(told));
    return () => undefined;
  }
  const worker = new Worker(new URL('./deal.worker.ts', import.meta.url), { type: 'module' });
  void wrap<{ answer: typeof answer }>(worker).answer(question, proxy(hear));
  return () => worker.terminate();
}

async function askServer(
  courseId: string,
  problem: DealProblem,
  hear: (told: Told) => void,
  signal: AbortSignal,
): Promise<void> {
  const away = {
    kind: 'given-up',
    detail: 'The server did not finish the deal. Try again in a moment.',
  } as const;
  try {
    const response = await fetch(`/api/courses/${courseId}/deals`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(problem),
      signal,
    });
    if (!response.ok || !response.body) {
      const data: unknown = await response.json().catch(() => undefined);
      return hear({ kind: 'given-up', detail: problemOf({ status: response.status, data }).detail });
    }
    let isOver = false;
    for await (const line of linesOf(response.body)) {
      const told = toldBy(problem, DealLine.parse(JSON.parse(line)));
      if (signal.aborted) return;
      isOver = told.kind !== 'going';
      hear(told);
    }
    if (!isOver) hear(away);
  } catch {
    if (!signal.aborted) hear(away);
  }
}

function toldBy(problem: DealProblem, line: DealLine): Told {
  switch (line.kind) {
    case 'going':
      return { kind: 'going', part: line.part, best: unpackDeal(problem, line.best) };
    case 'dealt':
      return { kind: 'dealt', dealt: { ok: true, deal: unpackDeal(problem, line.deal) } };
    case 'clash':
      return { kind: 'dealt', dealt: { ok: false, clash: line.clash } };
    case 'given-up':
      return line;
  }
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body
    .pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>)
    .getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const lines = (rest + value).split('\n');
    rest = sure(lines.pop());
    yield* lines;
  }
}
