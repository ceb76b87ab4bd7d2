import { afterAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { RosterChanged, RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer | undefined;
let given: CourseForTests;
beforeEach(async () => {
  await server?.stop();
  server = await startTestServer();
  given = await aCourse(server, { students: 3 });
});
afterAll(() => server?.stop());

const at = (path: string) => `/api/courses/${given.course.id}/roster${path}`;
const roster = async () => (await given.instructor.get(at('')).expect(200)).body as RosterView;
const kinds = async () =>
  Object.fromEntries(
    (await roster()).attributes.map(({ name, kind, isChosen }) => [
      name,
      isChosen ? `${kind}, chosen` : kind,
    ]),
  );
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const act = async (body: object) =>
  (await given.instructor.post(at('/changes')).send(body).expect(200)).body as RosterChanged;
const give = (name: string, attributes: Record<string, string>) =>
  act({ act: 'edit', edits: [{ enrolmentId: idOf(name), from: {}, to: { attributes } }] });
const choose = (name: string, kind: string | null) =>
  given.instructor.put(at('/attributes')).send({ name, kind }).expect(200);

describe('attributes', () => {
  it('are what their values look like, until someone says what they are', async () => {
    await give('noor', { Lab: 'some', Hours: '3', Free: 'Mon am' });
    expect(await kinds()).toEqual({ Lab: 'category', Hours: 'number', Free: 'half-days' });
    await choose('Lab', 'text');
    expect(await kinds()).toEqual({ Lab: 'text, chosen', Hours: 'number', Free: 'half-days' });
    await choose('Lab', null);
    expect(await kinds()).toMatchObject({ Lab: 'category' });
  });

  it('are there once they are added, before anybody has a value, and go when they are removed', async () => {
    await choose('Diet', 'category');
    expect(await kinds()).toEqual({ Diet: 'category, chosen' });
    await choose('Diet', null);
    expect(await kinds()).toEqual({});
  });

  it('are renamed for everyone at once, kind and all, and taken back as a whole', async () => {
    await give('noor', { Lab: 'some' });
    await give('jorge', { Lab: 'none' });
    await choose('Lab', 'text');
    const { changeId, people } = await act({ act: 'rename-attribute', from: 'Lab', to: 'Experience' });
    expect(people).toBe(2);
    expect(await kinds()).toEqual({ Experience: 'text, chosen' });
    await given.instructor.post(at(`/changes/${changeId}/undo`)).expect(200);
    expect(await kinds()).toEqual({ Lab: 'text, chosen' });
    expect(
      (await roster()).entries
        .map((entry) => entry.attributes['Lab'])
        .filter(Boolean)
        .sort(),
    ).toEqual(['none', 'some']);
  });

  it('never take another’s name', async () => {
    await give('noor', { Lab: 'some', Hours: '3' });
    await choose('Diet', 'category');
    for (const to of ['Hours', 'Diet']) {
      const refused = await given.instructor
        .post(at('/changes'))
        .send({ act: 'rename-attribute', from: 'Lab', to })
        .expect(422);
      expect(refused.body.detail).toBe(`${to} is the name of another attribute here. Choose one of its own.`);
    }
  });

  it('may be called anything', async () => {
    for (const name of ['__proto__', 'constructor', 'toString']) {
      await choose(name, 'number');
      await act({ act: 'rename-attribute', from: name, to: `${name} 2` });
      expect(await kinds()).toMatchObject({ [`${name} 2`]: 'number, chosen' });
    }
  });

  it('are not a student’s to see or to change', async () => {
    const noor = sure(given.students.get('noor')).browser;
    await noor.put(at('/attributes')).send({ name: 'Lab', kind: 'text' }).expect(404);
  });
});
