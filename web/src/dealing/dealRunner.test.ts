import { describe, expect, it } from '@jest/globals';
import type { Deal, DealProblem } from '@jigsaw/core/dealing';
import { dealAll, dealing, looksOf } from '@jigsaw/core/dealing';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { ask, gather, sharesOf } from './dealRunner.js';
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

describe('a deal that several workers share', () => {
  const small: DealProblem = {
    ...large,
    students: large.students.slice(0, 9).map((student, at) => ({
      ...student,
      attributes: { lab: String((at * at) % 4), hours: String((at * 7) % 5) },
    })),
    groups: [...groups, { ...sure(groups[0]), id: 'g2' as GroupId }],
    rules: [
      { kind: 'spread', attribute: 'lab', as: 'category' },
      { kind: 'spread', attribute: 'hours', as: 'number' },
    ],
    seed: 4127,
  };

  it('is the same as one alone comes to, however many they are and whoever is ready first', () => {
    const { looks } = looksOf(small);
    expect(looks).toBeGreaterThan(3);
    const alone = dealAll(small);
    for (const workers of [1, 2, 3, looks, looks + 5]) {
      const shares = sharesOf(looks, workers);
      expect(shares.reduce((sum, share) => sum + share.count, 0)).toBe(looks);
      expect(shares.every((share) => share.count > 0)).toBe(true);
      const told: Told[] = [];
      const hear = gather(
        shares,
        (each) => told.push(each),
        () => undefined,
      );
      for (const [at, share] of [...shares.entries()].reverse()) {
        const run = dealing(small, share);
        for (let next = run.next(); ; next = run.next()) {
          if (next.done) {
            hear(at, { kind: 'dealt', dealt: next.value });
            break;
          }
          hear(at, { kind: 'going', ...next.value });
        }
      }
      expect(told.at(-1)).toEqual({ kind: 'dealt', dealt: alone });
      const parts = told.flatMap((each) => (each.kind === 'going' ? [each.part] : []));
      expect(parts).toEqual(parts.toSorted((a, b) => a - b));
    }
  });

  it('ends for all as soon as one of them hears that the rules clash', () => {
    const told: Told[] = [];
    let ended = 0;
    const hear = gather([{ first: 0, count: 1 }, { first: 1, count: 1 }], (each) => told.push(each), () => (ended += 1)); // prettier-ignore
    const clash = { code: 'together-is-apart', names: ['Ada', 'Ben'] } as never;
    hear(1, { kind: 'dealt', dealt: { ok: false, clash } });
    hear(0, { kind: 'dealt', dealt: { ok: true, deal: {} as Deal } });
    expect(ended).toBe(1);
    expect(told).toEqual([{ kind: 'dealt', dealt: { ok: false, clash } }]);
  });
});
