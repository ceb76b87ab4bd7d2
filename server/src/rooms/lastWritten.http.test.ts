import { describe, expect, it } from '@jest/globals';
import type { LastWritten } from '@jigsaw/contract/rooms';
import { sure } from '@jigsaw/core/lists';
import { copyOf, released } from '../test/aCourse.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('l');
const { student, say } = teams;
const crock = () => sure(teams.given.board.groups[0]).id;

const latest = async (by: Browser) => ((await by.get(`/api/groups/${crock()}/last-written`).expect(200)).body as LastWritten).items; // prettier-ignore
const aTalk = async (title: string) => {
  const { id } = await released(teams.given, { kind: 'discussion', title, settings: {}, points: null });
  return { id, copyId: await copyOf(student('noor'), teams.given.course.id, title) };
};

describe('what was written last in a room', () => {
  it('stands with the newest first, and tells what is new to whom', async () => {
    const { copyId } = await aTalk('Talk');
    const { copyId: log } = await aTalk('Log');
    await say(student('noor'), copyId, 'Walnut');
    await say(student('jorge'), log, 'pH 3.4');
    expect(await latest(student('noor'))).toEqual([
      { copyId: log, kind: 'discussion', title: 'Log', at: '2026-11-10T10:01:00.000Z', by: 'Jorge', byYou: false, excerpt: 'pH 3.4', isNew: true },
      { copyId, kind: 'discussion', title: 'Talk', at: '2026-11-10T10:00:00.000Z', by: 'Noor', byYou: true, excerpt: 'Walnut', isNew: false },
    ]); // prettier-ignore
    expect((await latest(student('jorge'))).map(({ isNew }) => isNew)).toEqual([false, true]);
    await student('noor').post(`/api/copies/${log}/seen`).send({ what: 'all' }).expect(200);
    expect((await latest(student('noor'))).map(({ isNew }) => isNew)).toEqual([false, false]);
    expect((await latest(teams.given.instructor)).map(({ isNew }) => isNew)).toEqual([true, true]);
  });

  it('shows how a long text begins, and that it goes on', async () => {
    const { copyId } = await aTalk('Talk');
    await say(student('jorge'), copyId, `${'salt '.repeat(27)}and then more`);
    expect((await latest(student('noor')))[0]?.excerpt).toBe(`${'salt '.repeat(27)}and t…`);
  });

  it('is twelve things at most, and nothing of what was withdrawn', async () => {
    const { copyId } = await aTalk('Talk');
    const { id, copyId: gone } = await aTalk('Gone');
    for (let at = 1; at <= 13; at += 1) await say(student('jorge'), copyId, `Day ${at}`);
    await say(student('jorge'), gone, 'Not for long');
    expect(await latest(student('noor'))).toHaveLength(12);
    await teams.given.instructor.post(`/api/activities/${id}/withdraw`).expect(200);
    for (const by of [student('noor'), teams.given.instructor]) {
      const words = (await latest(by)).map(({ excerpt }) => excerpt);
      expect(words).toEqual(Array.from({ length: 12 }, (_, at) => `Day ${13 - at}`));
    }
  });

  it('is for those who are in it and their staff', async () => {
    const { copyId } = await aTalk('Talk');
    await say(student('jorge'), copyId, 'Walnut');
    for (const name of ['amina', 'nino'])
      await student(name).get(`/api/groups/${crock()}/last-written`).expect(404);
    const jorge = sure(teams.given.students.get('jorge')).enrolmentId;
    await teams.given.instructor
      .post(`/api/sets/${teams.given.set.id}/place`)
      .send({ moves: [{ student: jorge, from: crock(), to: null }] })
      .expect(200);
    await student('jorge').get(`/api/groups/${crock()}/last-written`).expect(404);
    expect(await latest(student('noor'))).toMatchObject([{ by: 'Jorge' }]); // it stays
  });

  it('keeps what each hands in for themselves from their teammates', async () => {
    await released(teams.given, { kind: 'folder', title: 'Sheet', settings: { by: 'student' } });
    const copyId = await copyOf(student('noor'), teams.given.course.id, 'Sheet');
    await student('noor').post(`/api/copies/${copyId}/files?name=a.txt`).set('Content-Type', 'application/octet-stream').send('a').expect(200); // prettier-ignore
    await student('noor').post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
    expect(await latest(student('noor'))).toMatchObject([{ title: 'Sheet', byYou: true }]);
    expect(await latest(student('jorge'))).toEqual([]);
  });
});
