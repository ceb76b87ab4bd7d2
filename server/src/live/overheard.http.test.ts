import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { DeskView, MarkView } from '@jigsaw/contract/marks';
import type { ActivityDraft, ActivityView } from '@jigsaw/contract/release';
import { sure } from '@jigsaw/core/lists';
import { someGroups, wholeSet } from '@jigsaw/core/release';
import {
  aCourse,
  addFile,
  aMember,
  anAssignment,
  aSheet,
  aText,
  copyOf,
  crockIsLedBy,
  released,
} from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import type { Following } from '../test/following.js';
import { marker, tellAll } from '../test/marker.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

/** Ilse teaches; Tomas assists, leads Crock and sees no other group's work; Olga observes. Noor and Jorge are in Crock, Amina and Kofi in
 * Carboy, Nino in none. */
const everyone = ['ilse', 'tomas', 'olga', 'noor', 'jorge', 'amina', 'kofi', 'nino'] as const;
type Name = (typeof everyone)[number];
const staff: readonly Name[] = ['ilse', 'tomas', 'olga'];

let server: TestServer;
let given: CourseForTests;
let browsers: Record<string, Browser>;
let listening: ReadonlyMap<Name, Following>;

let count = 0;
beforeAll(async () => {
  server = await startTestServer();
});
beforeEach(async () => {
  count += 1;
  server.clock.set('2026-11-10T10:00:00Z');
  given = await aCourse(server, { email: `ilse${count}@quillmere.example` });
  const [tomas, olga] = [
    await aMember(server, given, 'tomas', 'assistant'),
    await aMember(server, given, 'olga', 'observer'),
  ];
  browsers = { ilse: given.instructor, tomas, olga };
  for (const [name, { browser }] of given.students) browsers[name] = browser;
  await crockIsLedBy(given, 'Tomas');
  listening = new Map();
});
afterEach(() => {
  for (const each of listening.values()) each.stop();
});
afterAll(() => server.stop());

const crock = () => sure(given.board.groups[0]).id;
const carboy = () => sure(given.board.groups[1]).id;
const by = (name: Name): Browser => sure(browsers[name]);
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const inCourse = (path: string) => `/api/courses/${given.course.id}/${path}`;

/** Everyone who hears that someone did this. */
async function heardBy(act: () => PromiseLike<unknown>): Promise<Name[]> {
  listening = new Map(
    await Promise.all(everyone.map(async (name) => [name, await follow(by(name), given.course.id)] as const)),
  );
  await act();
  await tellAll(server, given.course.id);
  const heard = await Promise.all(
    everyone.map(async (name) => {
      const types = await sure(listening.get(name)).until(marker);
      return types.some((type) => type !== marker) ? [name] : [];
    }),
  );
  return heard.flat();
}
const activity = async (act: string, of: ActivityView, body: object = {}) =>
  (await given.instructor.post(`/api/activities/${of.id}/${act}`).send(body).expect(200))
    .body as ActivityView;
const drafted = async (more: Partial<ActivityDraft> = {}) =>
  (await given.instructor.post(inCourse('activities')).send(anAssignment(more)).expect(200))
    .body as ActivityView;
const release = (of: ActivityView, more: object = {}) =>
  activity('release', of, {
    to: wholeSet(given.set.id),
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt: null,
    version: of.version,
    ...more,
  });
const later = { goesLiveAt: '2026-11-20T10:00:00.000Z' };
const sheetIn = (copyId: string) => `/api/copies/${copyId}/marks/group`;
const copiesOf = async (of: ActivityView) => {
  const { rows } = (await given.instructor.get(`/api/releases/${sure(of.release).id}/desk`).expect(200))
    .body as DeskView;
  return rows.map((row) => row.copyId);
};
async function save(copyId: string, more: object = {}) {
  const { version } = (await given.instructor.get(sheetIn(copyId)).expect(200)).body as MarkView;
  await given.instructor
    .put(sheetIn(copyId))
    .send({ ...aSheet, typedMark: '30', version, ...more })
    .expect(200);
  return version + 1;
}
const says = { id: randomUUID(), parentId: null, text: aText('pH 3.4') };

describe('of work that is prepared hear those who teach', () => {
  const teachers: readonly Name[] = ['ilse', 'tomas'];

  it('when a draft is written, changed, deleted and taken back', async () => {
    let draft: ActivityView | null = null;
    expect(await heardBy(async () => (draft = await drafted()))).toEqual(teachers);
    const one = sure(draft as ActivityView | null);
    const edit = { ...anAssignment({ title: 'Other' }), version: one.version };
    expect(
      await heardBy(() => given.instructor.put(`/api/activities/${one.id}`).send(edit).expect(200)),
    ).toEqual(teachers);
    expect(await heardBy(() => given.instructor.delete(`/api/activities/${one.id}`).expect(200))).toEqual(
      teachers,
    );
    expect(await heardBy(() => activity('restore', one))).toEqual(teachers);
  });

  it('when something live is changed, until it is published', async () => {
    const live = await released(given);
    const edit = { ...anAssignment({ title: 'Other' }), version: live.version };
    expect(
      await heardBy(() => given.instructor.put(`/api/activities/${live.id}`).send(edit).expect(200)),
    ).toEqual(teachers);
    const publish = () => activity('publish', live, { version: live.version + 1 });
    expect(await heardBy(publish)).toEqual([...staff, 'noor', 'jorge', 'amina', 'kofi']);
  });
});

describe('of a release hears who can read it', () => {
  it('when it is scheduled and withdrawn before its time: staff', async () => {
    const draft = await drafted();
    expect(await heardBy(() => release(draft, later))).toEqual(staff);
    expect(await heardBy(() => activity('withdraw', draft))).toEqual(staff);
  });

  it('when it goes to one group, and is withdrawn', async () => {
    const draft = await drafted();
    const toCrock = { to: someGroups(given.set.id, [crock()]) };
    expect(await heardBy(() => release(draft, toCrock))).toEqual([...staff, 'noor', 'jorge']);
    expect(await heardBy(() => activity('withdraw', draft))).toEqual([...staff, 'noor', 'jorge']);
  });

  it('when it goes to a set without one of its people, and when it is told to others that it exists', async () => {
    const to = { ...wholeSet(given.set.id), exclude: [idOf('jorge')] };
    const one = await drafted();
    expect(await heardBy(() => release(one, { to }))).toEqual([...staff, 'noor', 'amina', 'kofi']);
    const other = await drafted({ title: 'Told' });
    expect(await heardBy(() => release(other, { to, outsiders: 'listed' }))).toEqual(everyone);
  });

  it('when it goes to others than before: those who had it, and those who get it', async () => {
    const live = await released(given, {}, { to: someGroups(given.set.id, [crock()]) });
    const was = { to: someGroups(given.set.id, [crock()]), outsiders: 'hidden' };
    const toCarboy = { to: someGroups(given.set.id, [carboy()]), outsiders: 'hidden', was };
    expect(
      await heardBy(() =>
        given.instructor.put(`/api/activities/${live.id}/reach`).send(toCarboy).expect(200),
      ),
    ).toEqual([...staff, 'noor', 'jorge', 'amina', 'kofi']);
  });

  it('when one group gets longer: that group, and staff who may see it', async () => {
    const live = await released(given);
    const longer = { due: '2026-11-25T17:00:00.000Z', reason: 'Their crock cracked' };
    expect(
      await heardBy(() =>
        given.instructor.put(`/api/activities/${live.id}/extensions/${carboy()}`).send(longer).expect(200),
      ),
    ).toEqual(['ilse', 'olga', 'amina', 'kofi']);
  });

  it('when one student gets longer: that student, and staff', async () => {
    const live = await released(given);
    const longer = { due: '2026-11-25T17:00:00.000Z', reason: 'She was ill' };
    const path = `/api/activities/${live.id}/student-extensions/${idOf('noor')}`;
    expect(await heardBy(() => given.instructor.put(path).send(longer).expect(200))).toEqual([
      ...staff,
      'noor',
    ]);
    expect(await heardBy(() => given.instructor.delete(path).expect(200))).toEqual([...staff, 'noor']);
    const draft = await drafted();
    const ofDraft = `/api/activities/${draft.id}/student-extensions/${idOf('noor')}`;
    expect(await heardBy(() => given.instructor.put(ofDraft).send(longer).expect(200))).toEqual(['ilse']);
  });
});

describe('of work in a copy hears who can read it', () => {
  it('a private copy: its group, and staff who may see it', async () => {
    await released(given);
    const copyId = await copyOf(by('amina'), given.course.id);
    expect(await heardBy(() => addFile(by('amina'), copyId, 'a.txt', Buffer.from('pH')))).toEqual([
      'ilse',
      'olga',
      'amina',
      'kofi',
    ]);
  });

  it('a discussion in which groups read each other: all of them', async () => {
    const kind = { kind: 'discussion', settings: {} } as Partial<ActivityDraft>;
    await released(given, kind, { mode: 'read-along' });
    const copyId = await copyOf(by('amina'), given.course.id);
    expect(
      await heardBy(() => by('amina').post(`/api/copies/${copyId}/posts`).send(says).expect(200)),
    ).toEqual(['ilse', 'olga', 'noor', 'jorge', 'amina', 'kofi']);
  });

  it('a folder in which each hands in alone: whose it is', async () => {
    const settings = { by: 'student', attempts: 'latest', mostFiles: 3, largestMb: 10, types: [] };
    await released(given, { kind: 'folder', settings });
    const copyId = await copyOf(by('noor'), given.course.id);
    expect(await heardBy(() => addFile(by('noor'), copyId, 'a.txt', Buffer.from('pH')))).toEqual([
      ...staff,
      'noor',
    ]);
  });
});

describe('of a mark hears', () => {
  it('while it is a draft: staff who may see the group', async () => {
    const [inCrock, inCarboy] = (await copiesOf(await released(given))).map(String);
    expect(await heardBy(() => save(sure(inCrock)))).toEqual(staff);
    expect(await heardBy(() => save(sure(inCarboy)))).toEqual(['ilse', 'olga']);
  });

  it('when it is released, changed for one of them, and taken back: whose mark it is', async () => {
    const inCrock = sure((await copiesOf(await released(given)))[0]);
    const press = async (what: string) => {
      const { version } = (await given.instructor.get(sheetIn(inCrock)).expect(200)).body as MarkView;
      await given.instructor
        .post(`${sheetIn(inCrock)}/${what}`)
        .send({ version })
        .expect(200);
    };
    await save(inCrock);
    expect(await heardBy(() => press('release'))).toEqual([...staff, 'noor', 'jorge']);
    const adjustment = { kind: 'adjusted', by: '1', reason: 'Ran the control' };
    await save(inCrock, { adjustments: [{ enrolmentId: idOf('jorge'), adjustment }] });
    expect(await heardBy(() => press('release'))).toEqual([...staff, 'jorge']);
    expect(await heardBy(() => press('recall'))).toEqual([...staff, 'noor', 'jorge']);
  });
});

describe('of groups and people hear', () => {
  it('all staff and who is in the set, when it is frozen; everyone where students choose', async () => {
    const freeze = (isFrozen: boolean) => () =>
      given.instructor.post(`/api/sets/${given.set.id}/freeze`).send({ isFrozen }).expect(200);
    expect(await heardBy(freeze(true))).toEqual([...staff, 'noor', 'jorge', 'amina', 'kofi']);
  });

  it('staff alone, of what is kept about people and of what assistants see', async () => {
    const edit = {
      enrolmentId: idOf('nino'),
      from: { attributes: { 'Kept back': null } },
      to: { attributes: { 'Kept back': 'yes' } },
    };
    expect(
      await heardBy(() =>
        given.instructor
          .post(inCourse('roster/changes'))
          .send({ act: 'edit', edits: [edit] })
          .expect(200),
      ),
    ).toEqual(staff);
    expect(
      await heardBy(() =>
        given.instructor.put(inCourse('assistants')).send({ assistantsSee: 'all' }).expect(200),
      ),
    ).toEqual(staff);
  });

  it('those who move, both groups, and staff, of a move', async () => {
    const moves = [{ student: idOf('noor'), from: crock(), to: null }];
    expect(
      await heardBy(() =>
        given.instructor.post(`/api/sets/${given.set.id}/place`).send({ moves }).expect(200),
      ),
    ).toEqual([...staff, 'noor', 'jorge']);
  });

  it('no one in another course', async () => {
    const elsewhere = await aCourse(server, { email: `other${count}@quillmere.example`, students: 2 });
    const other = await follow(elsewhere.instructor, elsewhere.course.id);
    await heardBy(() => drafted());
    await tellAll(server, elsewhere.course.id);
    expect(await other.until(marker)).toEqual([marker]);
    other.stop();
  });
});
