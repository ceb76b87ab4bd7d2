import { proxy, wrap } from 'comlink';
import { DealLine } from '@jigsaw/contract/dealing';
import type { Deal, DealProblem, Looks } from '@jigsaw/core/dealing';
import { better, looksOf, unpackDeal } from '@jigsaw/core/dealing';
import { sure } from '@jigsaw/core/lists';
import { apiAddress, problemOf } from '../api/index.js';
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
  if (question.kind === 'deal' && !question.looks) return askTogether(question.problem, hear);
  return askWorker(question, hear);
}

function askWorker(question: Question, hear: (told: Told) => void): () => void {
  const worker = new Worker(new URL('./deal.worker.ts', import.meta.url), { type: 'module' });
  void wrap<{ answer: typeof answer }>(worker).answer(question, proxy(hear));
  return () => worker.terminate();
}

/** More workers than these are no quicker: a page is not alone on its machine. */
const mostWorkers = 4;

/** The looks of a deal, shared among as many workers as there are processors for. What comes of it does not hang on how many that are. */
function askTogether(problem: DealProblem, hear: (told: Told) => void): () => void {
  const shares = sharesOf(looksOf(problem).looks, Math.min(mostWorkers, navigator.hardwareConcurrency || 1));
  const together = gather(shares, hear, () => end());
  const ends = shares.map((looks, at) =>
    askWorker({ kind: 'deal', problem, looks }, (told) => together(at, told)),
  );
  const end = () => {
    for (const each of ends) each();
  };
  return end;
}

/** Looks on beyond the usual ones, while someone reads what was found. Where there are no workers it does not.
 * @returns what ends it */
export function lookOn(problem: DealProblem, hear: (told: Told) => void): () => void {
  if (typeof Worker === 'undefined' || problem.students.length > mostInPage) return () => undefined;
  const { looks } = looksOf(problem);
  return askWorker({ kind: 'deal', problem, looks: { first: looks, count: looks * timesMore } }, hear);
}
const timesMore = 20;

/** So many looks in a row for each worker, none of them empty. */
export function sharesOf(looks: number, workers: number): readonly Looks[] {
  const count = Math.min(looks, workers);
  const from = (share: number) => Math.floor((share * looks) / count);
  return Array.from({ length: count }, (_, share) => ({
    first: from(share),
    count: from(share + 1) - from(share),
  }));
}

/** What the shares of one deal tell, told as one: how far they are together, the best of them, and at last the deal. The best is the first of the best, in
 * the order of the looks, whichever is ready first.
 * @param onClash the rules clash, as the first to hear of it says; nothing more is needed of the others. */
export function gather(
  shares: readonly Looks[],
  hear: (told: Told) => void,
  onClash: () => void,
): (share: number, told: Told) => void {
  const parts = shares.map(() => 0);
  const bests = shares.map((): Deal | null => null);
  let isOver = false;
  const best = () =>
    bests.reduce<Deal | null>((first, next) => (next === null ? first : better(first, next)), null);
  return (share, told) => {
    if (isOver) return;
    if (told.kind === 'going') [parts[share], bests[share]] = [told.part, told.best];
    else if (told.kind === 'dealt' && told.dealt.ok)
      [parts[share], bests[share]] = [Infinity, told.dealt.deal];
    else {
      isOver = true;
      onClash();
      return hear(told);
    }
    const found = best();
    if (found && parts.every((part) => part === Infinity)) {
      isOver = true;
      return hear({ kind: 'dealt', dealt: { ok: true, deal: found } });
    }
    const done = parts.reduce((sum, part) => sum + Math.min(1, part), 0);
    hear({ kind: 'going', part: done / shares.length, best: found });
  };
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
    const response = await fetch(apiAddress(`courses/${courseId}/deals`), {
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
