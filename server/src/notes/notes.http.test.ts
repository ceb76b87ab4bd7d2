import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from '@jest/globals';
import type { NoteList } from '@jigsaw/contract/notes';
import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { aMember, crockIsLedBy } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('o');
let assistant: Browser;
let crock: GroupId;
let carboy: GroupId;
beforeEach(async () => {
  assistant = await aMember(teams.server, teams.given, `tomas${teams.count}`, 'assistant');
  [crock, carboy] = teams.given.board.groups.map(({ id }) => id) as [GroupId, GroupId];
});

const student = (name: string) => sure(teams.given.students.get(name));
const note = (text: string, about: string | null = null, id = randomUUID()) => ({ id, text, about });
const add = (body: object, by: Browser = teams.given.instructor, group = crock) => by.post(`/api/groups/${group}/notes`).send(body); // prettier-ignore
const notesIn = async (by: Browser = teams.given.instructor) =>
  ((await by.get(`/api/groups/${crock}/notes`).expect(200)).body as NoteList).notes;
const words = async (by?: Browser) => (await notesIn(by)).map(({ text }) => text);

describe('what staff note about a group', () => {
  it('is there for all of them who mark, as it was typed, the newest first, about the group or one of its members', async () => {
    await add(note('  Two lines,\nand space  ')).expect(200);
    teams.server.clock.pass({ minutes: 5 });
    await add(note('Speaks for all', student('noor').enrolmentId), assistant).expect(200);
    expect(await notesIn()).toMatchObject([
      { text: 'Speaks for all', about: { name: 'Noor' }, author: { isYou: false, isStaff: true }, createdAt: '2026-11-10T10:05:00.000Z', editedAt: null, mayRemove: true },
      { text: '  Two lines,\nand space  ', about: null, author: { isYou: true }, mayRemove: true },
    ]); // prettier-ignore
    expect((await notesIn(assistant)).map(({ mayRemove }) => mayRemove)).toEqual([true, false]);
  });

  it('is written once, however often it is sent', async () => {
    const body = note('Once');
    const answers = await Promise.all([add(body), add(body), add(body)]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
    expect(await words()).toEqual(['Once']);
  });

  it('is about who is in the group, and has words', async () => {
    await add(note('Elsewhere', student('amina').enrolmentId)).expect(422);
    await add(note('')).expect(422);
    await add(note('x'.repeat(5001))).expect(422);
    await add(note(' \n ')).expect(422);
    expect(await words()).toEqual([]);
    await add(note('x'.repeat(5000))).expect(200);
  });

  it('is changed by its author alone, and not over what they wrote in another window', async () => {
    await add(note('First')).expect(200);
    const { id, version } = sure((await notesIn())[0]);
    const change = (text: string, by: Browser = teams.given.instructor) =>
      by.put(`/api/notes/${id}`).send({ text, version });
    await change('Not mine', assistant).expect(403);
    teams.server.clock.pass({ minutes: 1 });
    await change('Second').expect(200);
    const { body } = await change('Third').expect(409);
    expect(body).toMatchObject({ type: '/problems/stale-write', current: { text: 'Second', version: version + 1 } }); // prettier-ignore
    expect(await notesIn()).toMatchObject([{ text: 'Second', editedAt: '2026-11-10T10:01:00.000Z' }]);
  });

  it('is removed by its author or an instructor, and is there again when that is undone', async () => {
    const mine = note('Mine');
    await add(mine).expect(200);
    const theirs = note('Theirs');
    await add(theirs, assistant).expect(200);
    await assistant.delete(`/api/notes/${mine.id}`).expect(403);
    await teams.given.instructor.delete(`/api/notes/${theirs.id}`).expect(200);
    await teams.given.instructor.delete(`/api/notes/${theirs.id}`).expect(200); // pressed twice
    expect(await words()).toEqual(['Mine']);
    await teams.given.instructor.put(`/api/notes/${theirs.id}`).send({ text: 'New', version: 1 }).expect(404);
    await teams.given.instructor.post(`/api/notes/${theirs.id}/restore`).expect(200);
    expect((await words()).toSorted()).toEqual(['Mine', 'Theirs']);
  });

  it('keeps the group from being removed as if it had never been used', async () => {
    const cellars = await teams.given.instructor
      .post(`/api/courses/${teams.given.course.id}/sets`)
      .send({
        name: 'Cellars',
        shape: { by: 'count', groups: 2 },
        capacity: null,
        pattern: 'C {n}',
        names: [],
      })
      .expect(200);
    const { id } = cellars.body as GroupSetView;
    const { groups } = (await teams.given.instructor.get(`/api/sets/${id}/board`).expect(200))
      .body as BoardView;
    const removed = groups.map((group) => group.id);
    await add(note('Stays'), teams.given.instructor, sure(removed[1])).expect(200);
    const remove = (ids: string[]) => teams.given.instructor.put(`/api/sets/${id}/groups`).send({ groups: [], removed: ids }); // prettier-ignore
    const { body } = await remove(removed).expect(409);
    expect(body).toMatchObject({ detail: 'C 2 has members, work, notes or files, so it cannot be removed. Lock it to keep people out. Nothing was changed.' }); // prettier-ignore
    await remove([sure(removed[0])]).expect(200);
  });
});

describe('no one else', () => {
  it('reads it: no student, no observer, no assistant of other groups', async () => {
    const theNote = note('Not for them');
    await add(theNote).expect(200);
    const observer = await aMember(teams.server, teams.given, `olga${teams.count}`, 'observer');
    await observer.get(`/api/groups/${crock}/notes`).expect(403);
    for (const [by, status] of [
      [student('noor').browser, 404],
      [student('amina').browser, 404],
      [teams.server.browser(), 401],
    ] as const) {
      await by.get(`/api/groups/${crock}/notes`).expect(status);
      await add(note('Mine'), by).expect(status);
      await by.put(`/api/notes/${theNote.id}`).send({ text: 'Mine', version: 1 }).expect(status);
      await by.delete(`/api/notes/${theNote.id}`).expect(status);
      await by.post(`/api/notes/${theNote.id}/restore`).expect(status);
    }
    await crockIsLedBy(teams.given, `Tomas${teams.count}`);
    await assistant.get(`/api/groups/${crock}/notes`).expect(200);
    await assistant.get(`/api/groups/${carboy}/notes`).expect(404);
    expect(await words()).toEqual(['Not for them']);
  });

  it('hears of it', async () => {
    const bea = await aMember(teams.server, teams.given, `bea${teams.count}`, 'assistant');
    await crockIsLedBy(teams.given, `Tomas${teams.count}`);
    const following = (by: Browser) => follow(by, teams.given.course.id);
    const [theirs, hers, ofOthers] = [await following(teams.given.instructor), await following(student('noor').browser), await following(bea)] as const; // prettier-ignore
    await add(note('Quiet'), assistant).expect(200);
    await tellAll(teams.server, teams.given.course.id);
    expect(await theirs.until(marker)).toContain('note.written');
    for (const none of [hers, ofOthers])
      expect((await none.until(marker)).filter((type) => type.startsWith('note.'))).toEqual([]);
    for (const each of [theirs, hers, ofOthers]) each.stop();
  });
});
