import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from '@jest/globals';
import type { AuditChoice, AuditLine, AuditTrail } from '@jigsaw/contract/audit';
import type { GroupId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { aMember, aText, copyOf, putOnShelf, released } from '../test/aCourse.js';
import { practising } from '../test/practising.js';
import type { Browser } from '../test/testServer.js';
import { twoTeams } from '../test/twoTeams.js';

const teams = twoTeams('au');
let ilse: Browser;
let noor: Browser;
let crock: GroupId;
beforeEach(() => {
  ilse = teams.given.instructor;
  noor = teams.student('noor');
  crock = sure(teams.given.board.groups[0]).id;
});

const at = (path = '') => `/api/courses/${teams.given.course.id}/audit${path}`;
const trail = async (query: object = {}) =>
  (await ilse.get(at()).query(query).expect(200)).body as AuditTrail;
/** “Noor handed in, no. 1 | Ferment report | Crock”, the latest first. */
const said = ({ by, says, times, activity, group, people }: AuditLine) =>
  [`${by?.name ?? '—'} ${says}${times > 1 ? ` (${times})` : ''}`, activity?.title, group?.name, ...people].filter(Boolean).join(' | '); // prettier-ignore
const lines = async (query: object = {}) => (await trail(query)).lines.map(said);
const idOf = (name: string) => sure(teams.given.students.get(name)).enrolmentId;
const pass = (minutes = 1) => teams.server.clock.pass({ minutes });
const handIn = async (by: Browser, copyId: string) => {
  await by
    .put(`/api/copies/${copyId}/part`)
    .send({ text: aText('secret pH'), version: 0 })
    .expect(200);
  pass();
  await by.post(`/api/copies/${copyId}/hand-in`).send({ attempt: 1 }).expect(200);
  pass();
};

describe('the audit trail', () => {
  it('tells who did what to what, the latest first, with where it is seen, and nothing that anyone typed', async () => {
    const { id } = await released(teams.given, {});
    const copyId = await copyOf(noor, teams.given.course.id);
    await handIn(noor, copyId);
    const sheet = { typedMark: '30', overrideReason: '', picks: {}, feedback: 'secret', adjustments: [], version: 0 }; // prettier-ignore
    await ilse.put(`/api/copies/${copyId}/marks/group`).send(sheet).expect(200);
    pass();
    await ilse.post(`/api/copies/${copyId}/marks/group/release`).send({ version: 1 }).expect(200);
    pass();
    await putOnShelf(noor, crock, 'secret.txt', 'secret').expect(200);
    pass();
    const message = { id: randomUUID(), to: { kind: 'groups', groupIds: [crock] }, subject: 'secret', text: 'secret', count: 1 }; // prettier-ignore
    await noor.post(`/api/courses/${teams.given.course.id}/messages`).send(message).expect(200);
    pass();
    const moves = [{ student: idOf('nino'), from: null, to: crock }];
    await ilse.post(`/api/sets/${teams.given.set.id}/place`).send({ moves }).expect(200);
    pass();
    const answer = await trail();
    expect(answer.lines.slice(0, 8).map(said)).toEqual([
      'Dr. Ilse Marrow placed 1 student | Crock | Nino',
      'Noor sent a message | Crock',
      'Noor put a file on the shelf | Crock',
      'Dr. Ilse Marrow released a mark to 2 students | Ferment report | Crock',
      'Dr. Ilse Marrow drafted a mark | Ferment report | Crock',
      'Noor handed in, no. 1 | Ferment report | Crock',
      'Noor saved a text of 2 words | Ferment report | Crock',
      'Dr. Ilse Marrow released it to 2 groups | Ferment report',
    ]);
    expect(answer.lines.slice(0, 8).map(({ kind, way }) => `${kind} ${way?.path}`)).toEqual([
      `groups groups/${teams.given.set.id}`,
      `messages room/${crock}`,
      `work room/${crock}`,
      'marks marks',
      'marks marks',
      `work copies/${copyId}`,
      `work copies/${copyId}`,
      `release release/${id}`,
    ]);
    expect(said(sure(answer.lines.at(-1)))).toBe('Dr. Ilse Marrow created the course');
    expect(JSON.stringify(answer).toLowerCase()).not.toContain('secret');
    const csv = (await ilse.get(at('.csv')).query({ kind: 'marks' }).expect(200)).text;
    expect(csv.split('\r\n').slice(0, 2)).toEqual([
      '\ufeffTime (UTC),Who,What,Activity,Group,Students',
      '2026-11-10T10:03:00.000Z,Dr. Ilse Marrow,released a mark to 2 students,Ferment report,Crock (Bench teams),',
    ]);
  });

  it('is narrowed by kind, by who did it or to whom, by group and by activity', async () => {
    const { id } = await released(teams.given, {});
    await released(teams.given, { title: 'Salt trial' });
    await handIn(noor, await copyOf(noor, teams.given.course.id));
    const amina = teams.student('amina');
    await handIn(amina, await copyOf(amina, teams.given.course.id, 'Salt trial'));
    await ilse.put(`/api/activities/${id}/student-extensions/${idOf('jorge')}`).send({ due: '2026-12-02T10:00:00.000Z', closes: null, reason: 'secret' }).expect(200); // prettier-ignore
    expect(await lines({ kind: 'work', group: crock })).toEqual(['Noor handed in, no. 1 | Ferment report | Crock', 'Noor saved a text of 2 words | Ferment report | Crock']); // prettier-ignore
    expect(await lines({ person: idOf('amina'), kind: 'work' })).toEqual(['Amina handed in, no. 1 | Salt trial | Carboy', 'Amina saved a text of 2 words | Salt trial | Carboy']); // prettier-ignore
    expect((await lines({ person: idOf('jorge') }))[0]).toBe('Dr. Ilse Marrow gave longer time | Ferment report | Jorge'); // prettier-ignore
    expect((await lines({ activity: id })).every((line) => line.includes('Ferment report'))).toBe(true);
    expect(await lines({ activity: id, group: crock, person: idOf('amina') })).toEqual([]);
    const { people, groups, activities } = (await ilse.get(at('/choice')).expect(200)).body as AuditChoice;
    expect([people.map(({ name }) => name), groups.map(({ name }) => name), activities.map(({ title }) => title)]).toEqual([
      ['Amina', 'Dr. Ilse Marrow', 'Jorge', 'Kofi', 'Nino', 'Noor'],
      ['Crock', 'Carboy'],
      ['Ferment report', 'Salt trial'],
    ]); // prettier-ignore
    for (const query of [{ kind: 'all' }, { person: 'Noor' }, { word: 'pH' }, { group: `${crock}' OR true` }])
      await ilse.get(at()).query(query).expect(422);
  });

  it('tells the same act in a row once, and goes on where an answer ended', async () => {
    await released(teams.given, { kind: 'discussion', title: 'Talk', settings: {} });
    const copyId = await copyOf(noor, teams.given.course.id, 'Talk');
    for (let at = 0; at < 205; at += 1) await noor.post(`/api/copies/${copyId}/posts`).send({ id: randomUUID(), parentId: null, text: aText('secret') }).expect(200); // prettier-ignore
    pass(120);
    await noor.post(`/api/copies/${copyId}/posts`).send({ id: randomUUID(), parentId: null, text: aText('secret') }).expect(200); // prettier-ignore
    const first = await trail({ kind: 'work' });
    expect(first.lines.map(said)).toEqual(['Noor wrote a post of 1 word | Talk | Crock', 'Noor wrote a post of 1 word (199) | Talk | Crock']); // prettier-ignore
    const rest = await trail({ kind: 'work', before: first.before });
    expect([rest.lines.map(said), rest.before]).toEqual([
      ['Noor wrote a post of 1 word (6) | Talk | Crock'],
      null,
    ]);
  });

  it('leaves out what was practised, and what no one knows any more', async () => {
    await released(teams.given, {});
    await ilse.post(`/api/courses/${teams.given.course.id}/practice`).send({ groupId: crock }).expect(200);
    const practice = practising(ilse, crock);
    await handIn(practice, await copyOf(practice, teams.given.course.id));
    await teams.server.rows(`INSERT INTO "event" ("id", "type", "courseId", "actorId", "subjectId", "facts", "at") VALUES ('${randomUUID()}', 'constructor', '${teams.given.course.id}', NULL, NULL, '{}', now())`); // prettier-ignore
    expect(await lines({ kind: 'work' })).toEqual([]);
    expect((await lines()).join('\n')).not.toMatch(/not told|handed in/);
  });

  it('reads on where nothing of what was read is told', async () => {
    await teams.server.rows(`INSERT INTO "event" ("id", "type", "courseId", "subjectId", "facts", "at") SELECT gen_random_uuid(), 'post.added', '${teams.given.course.id}', gen_random_uuid(), '{}', '2027-01-01' FROM generate_series(1, 450)`); // prettier-ignore
    expect((await lines()).at(-1)).toBe('Dr. Ilse Marrow created the course');
  });

  it('is for instructors; a group of another course narrows it to nothing', async () => {
    const bea = await aMember(teams.server, teams.given, `bea${teams.count}`, 'assistant');
    for (const path of ['', '/choice', '.csv']) {
      await bea.get(at(path)).expect(403);
      await noor.get(at(path)).expect(404);
    }
    expect(await lines({ group: randomUUID() })).toEqual([]);
    expect((await trail({ before: randomUUID() })).lines).toEqual([]);
    const id = randomUUID();
    await teams.server.rows(`INSERT INTO "event" ("id", "type", "courseId", "facts", "at") VALUES ('${id}', 'course.changed', NULL, '{}', '2099-01-01')`); // prettier-ignore
    expect((await trail({ before: id })).lines).toEqual([]);
  });
});
