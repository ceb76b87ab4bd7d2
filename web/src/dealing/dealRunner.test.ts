import { describe, expect, it } from '@jest/globals';
import type { DealProblem } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { ask } from './dealRunner.js';
import type { Told } from './dealMessages.js';

const groups = [0, 1].map((at) => ({
  id: `g${at}` as GroupId,
  name: `G${at}`,
  capacity: null,
  isLocked: false,
}));
const large: DealProblem = {
  students: Array.from({ length: 2_001 }, (_, at) => ({
    id: `s${at}` as EnrolmentId,
    name: `S${at}`,
    attributes: {},
    fixedIn: null,
  })),
  groups,
  rules: [],
  seed: 1,
};
const seats = large.students.map((_, at) => at % 2);
const line = (kind: string, more: object) => `${JSON.stringify({ kind, ...more })}\n`;
const deal = { seats, reached: [], objective: 0, bound: 0 };

/** What is heard of an answer that comes in these pieces, and breaks off after them if it `breaks`. */
async function heard(pieces: readonly string[], { breaks = false, status = 200 } = {}): Promise<Told[]> {
  const bytes = new TextEncoder();
  globalThis.fetch = async () => {
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        for (const piece of pieces) controller.enqueue(bytes.encode(piece));
        if (breaks) controller.error(new Error('gone'));
        else controller.close();
      },
    });
    return new Response(body, { status });
  };
  const all: Told[] = [];
  await new Promise<void>((resolve) => {
    ask('course', { kind: 'deal', problem: large }, (told) => {
      all.push(told);
      if (told.kind !== 'going') resolve();
    });
  });
  return all;
}

describe('a very large class', () => {
  it('is dealt by the server, whose lines may come in any pieces', async () => {
    const text = line('going', { part: 0.5, best: deal }) + line('dealt', { deal });
    const told = await heard([text.slice(0, 40), text.slice(40, -70), text.slice(-70)]);
    expect(told.map((each) => each.kind)).toEqual(['going', 'dealt']);
    const last = sure(told.at(-1));
    if (last.kind !== 'dealt' || !last.dealt.ok) throw new Error('no deal');
    expect(last.dealt.deal.seats.get('s1' as EnrolmentId)).toBe(sure(groups[1]).id);
  });

  it('is told why there is none', async () => {
    const clash = { code: 'together-is-apart', names: ['Ada', 'Ben'] };
    expect(await heard([line('clash', { clash })])).toEqual([{ kind: 'dealt', dealt: { ok: false, clash } }]);
    expect(await heard([line('given-up', { detail: 'Too long.' })])).toEqual([
      { kind: 'given-up', detail: 'Too long.' },
    ]);
  });

  it('is told when the answer breaks off, ends early or is refused', async () => {
    const away = { kind: 'given-up', detail: 'The server did not finish the deal. Try again in a moment.' };
    expect((await heard([line('going', { part: 0.2, best: deal })], { breaks: true })).at(-1)).toEqual(away);
    expect(await heard([])).toEqual([away]);
    const problem = {
      type: '/problems/forbidden',
      title: 'No',
      status: 403,
      detail: 'Only who places students may.',
    };
    expect(await heard([JSON.stringify(problem)], { status: 403 })).toEqual([
      { kind: 'given-up', detail: problem.detail },
    ]);
  });
});
