import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { WorkView } from '@jigsaw/contract/handin';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { plainText } from '@jigsaw/core/text';
import { aCourse, aText, copyOf, importPaste, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { AnotherProcess } from '../test/anotherProcess.js';
import { anotherProcess } from '../test/anotherProcess.js';
import { follow } from '../test/following.js';
import { manyTabs } from '../test/manyBrowsers.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

const people = 24;
const teams = 12;

let server: TestServer;
let given: CourseForTests;
let second: AnotherProcess;
let tabs: Awaited<ReturnType<typeof manyTabs>>;
beforeAll(async () => {
  server = await startTestServer();
  server.clock.set(new Date()); // as the other process has it
  given = await aCourse(server);
  const lines = Array.from({ length: people }, (_, at) => `Runner ${at} <runner${at}@quillmere.example>`);
  await importPaste(given.instructor, given.course.id, lines.join('\n'));
  tabs = await manyTabs(server, 'runner%');
  second = await anotherProcess(server);
});
afterAll(async () => {
  await second.kill();
  await server.stop();
});

async function aSet(
  name: string,
  groups: number,
  capacity: number,
): Promise<{ set: GroupSetView; board: BoardView }> {
  const set = (
    await given.instructor
      .post(`/api/courses/${given.course.id}/sets`)
      .send({
        name,
        shape: { by: 'count', groups },
        capacity,
        pattern: 'Panel {n}',
        names: [],
        signUp: { opens: null, closes: null, showsNames: true },
      }) // prettier-ignore
      .expect(200)
  ).body as GroupSetView;
  return {
    set,
    board: (await given.instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView,
  };
}

describe('two processes on one database', () => {
  it('give away no place twice when everyone presses at once, half of them at each', async () => {
    const { set, board } = await aSet('Tasting panels', 5, 4);
    const answers = await Promise.all(
      tabs.map(async (tab, at) => {
        const groupId = sure(board.groups[at % 5]).id;
        const by = at % 2 ? tab.here : tab.at(second.url);
        return { groupId, answer: await by.post(`/api/sets/${set.id}/sign-up`).send({ groupId }) };
      }),
    );
    const won = answers.filter(({ answer }) => answer.status === 200);
    expect(won).toHaveLength(20);
    expect(answers.filter(({ answer }) => answer.status === 409)).toHaveLength(people - 20);
    const seats = (await server.rows(
      `SELECT "groupId"::text FROM "membership" WHERE "setId" = '${set.id}' AND "until" IS NULL`,
    )) as { groupId: string }[];
    expect(seats.map((seat) => seat.groupId).toSorted()).toEqual(
      won.map(({ groupId }) => groupId).toSorted(),
    );
  });

  it('tell the pages that are open at one of them what was done at the other', async () => {
    await released(given, { kind: 'discussion', title: 'Talk', settings: {} });
    const noor = sure(given.students.get('noor')).browser;
    const talk = await copyOf(noor, given.course.id, 'Talk');
    const page = await follow(noor, given.course.id);
    const elsewhere = await elsewhereAs('noor');
    await elsewhere
      .post(`/api/copies/${talk}/posts`)
      .send({ id: '5f0c2d5e-4c3b-4ad5-9a37-0f8c5f0e7a11', parentId: null, text: aText('pH 3.4') })
      .expect(200);
    expect(await page.until('post.added')).toContain('post.added');
    page.stop();
  });
});

/** Someone who signs in at the other process. */
async function elsewhereAs(name: string): Promise<Browser> {
  const [tab] = await manyTabs(server, `${name}@%`);
  return sure(tab).at(second.url);
}

describe('a process that is killed while work is handed in', () => {
  it('has kept whatever it said it kept, and nothing of anything else by halves', async () => {
    const { set, board } = await aSet('Teams', teams, 2);
    const waiting = board.students.filter((each) => each.name.startsWith('Runner'));
    const moves = waiting.map(({ enrolmentId }, at) => ({
      student: enrolmentId,
      from: null,
      to: sure(board.groups[at % teams]).id,
    }));
    await given.instructor.post(`/api/sets/${set.id}/place`).send({ moves }).expect(200);
    const draft = { title: 'Log', schedule: { opens: null, due: null, closes: null } };
    await released(given, draft, { to: wholeSet(set.id) });
    const copies = await Promise.all(tabs.map((tab) => copyOf(tab.here, given.course.id, 'Log')));
    const before = copies.map(() => ({ text: '', version: 0, attempts: 0 }));
    let cutOff = 0;
    for (let round = 1; round <= 5; round += 1) {
      let answered = 0;
      const kills: Promise<void>[] = [];
      const done = () => {
        answered += 1;
        if (answered === round * 7) kills.push(second.kill());
      };
      const wrote = `Round ${round}.`;
      const outcomes = await Promise.all(
        tabs.map(async (tab, at) => {
          const by = tab.at(second.url);
          const copy = sure(copies[at]);
          const { version, attempts } = sure(before[at]);
          const saved = await by.put(`/api/copies/${copy}/part`).send({ text: aText(wrote), version }).then(done).then(() => true, () => false); // prettier-ignore
          const handedIn = saved && await by.post(`/api/copies/${copy}/hand-in`).send({ attempt: attempts + 1 }).then((answer) => { done(); return answer.status; }, () => false as const); // prettier-ignore
          return { saved, handedIn };
        }),
      );
      expect(kills).toHaveLength(1);
      await Promise.all(kills);
      for (const [at, { saved, handedIn }] of outcomes.entries()) {
        const work = (await sure(tabs[at]).here.get(`/api/copies/${sure(copies[at])}/work`).expect(200)).body as WorkView; // prettier-ignore
        const mine = work.parts.find((part) => part.author.isYou);
        const text = mine ? plainText(mine.text) : '';
        const { text: earlier, attempts } = sure(before[at]);
        if (saved) expect(text).toBe(wrote);
        else expect([earlier, wrote]).toContain(text);
        if (handedIn === 200) expect(work.handIns.length).toBeGreaterThan(attempts);
        // Attempts follow one another, each whole: credited to both, with a text of anyone who had written.
        expect(work.handIns.map((each) => each.attempt)).toEqual(
          work.handIns.map((_, place) => work.handIns.length - place),
        );
        for (const each of work.handIns) {
          expect(each.credited).toHaveLength(2);
          expect(each.parts.every((part) => /^Round \d\.$/.test(plainText(part.text)))).toBe(true);
        }
        if (!saved || handedIn === false) cutOff += 1;
        before[at] = { text, version: mine?.version ?? 0, attempts: work.handIns.length };
      }
      second = await anotherProcess(server);
    }
    expect(cutOff).toBeGreaterThan(teams);
    // Anyone who presses again, at what is there, is answered as if nothing had been.
    for (const [at, tab] of tabs.entries()) {
      const { version } = sure(before[at]);
      const address = `/api/copies/${sure(copies[at])}`;
      await tab
        .at(second.url)
        .put(`${address}/part`)
        .send({ text: aText('At last.'), version })
        .expect(200);
    }
  }, 300_000);
});
