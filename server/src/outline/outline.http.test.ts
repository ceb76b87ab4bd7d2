import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { ActivityPlaced, HeadingMoved, HeadingView, OutlineView } from '@jigsaw/contract/outline';
import { sure } from '@jigsaw/core/lists';
import { aCourse, aMember, anAssignment, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let noor: Browser;
const ids = new Map<string, string>();
const id = (title: string) => sure(ids.get(title));

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  noor = sure(given.students.get('noor')).browser;
  const [, carboy] = given.board.groups;
  ids.set('Log', (await released(given, { title: 'Log' })).id);
  ids.set('Memo', (await released(given, { title: 'Memo' }, { to: { include: [{ kind: 'group', setId: given.set.id, groupId: sure(carboy).id }], exclude: [] } })).id); // prettier-ignore
  const draft = await post('activities', anAssignment({ title: 'Draft' }));
  ids.set('Draft', (draft as { id: string }).id);
});
afterAll(() => server.stop());

const inCourse = (path: string) => `/api/courses/${given.course.id}/${path}`;
const post = async (path: string, body: object) =>
  (await given.instructor.post(inCourse(path)).send(body).expect(200)).body as unknown;
const read = async (by = given.instructor) => (await by.get(inCourse('outline')).expect(200)).body as OutlineView; // prettier-ignore
const said = ({ headings, loose }: OutlineView) => {
  const titleOf = new Map([...ids].map(([title, each]) => [each, title]));
  const titles = (of: readonly string[]) => of.map((each) => titleOf.get(each)).join(' ');
  return [...headings.map(({ title, activityIds }) => `${title}: ${titles(activityIds)}`), titles(loose)];
};
const heading = async (title: string) =>
  sure<HeadingView | undefined>((await read()).headings.find((each) => each.title === title));
const place = async (title: string, to: object, status = 200) =>
  (await given.instructor.post(`/api/activities/${id(title)}/place`).send(to).expect(status)).body as ActivityPlaced; // prettier-ignore
const under = async (title: string, before: string | null = null) => ({
  headingId: (await heading(title)).id,
  before: before && id(before),
});

describe('the outline of a course', () => {
  it('begins with everything as it was written, and shows each person what they see', async () => {
    expect(said(await read())).toEqual(['Log Memo Draft']);
    expect(said(await read(noor))).toEqual(['Log']);
  });

  it('takes headings, and activities under them', async () => {
    await post('headings', { title: 'Milk' });
    expect(said((await post('headings', { title: '  Salt and time ' })) as OutlineView)).toEqual([
      'Milk: ',
      'Salt and time: ',
      'Log Memo Draft',
    ]);
    await place('Draft', await under('Milk'));
    await place('Log', await under('Salt and time'));
    const { outline } = await place('Memo', await under('Salt and time', 'Log'));
    expect(said(outline)).toEqual(['Milk: Draft', 'Salt and time: Memo Log', '']);
  });

  it('has no heading for a student who sees nothing under it, and tells no one of them what it is for renaming', async () => {
    const { headings, loose } = await read(noor);
    expect(headings).toEqual([
      { ...(await heading('Salt and time')), version: null, activityIds: [id('Log')] },
    ]);
    expect(loose).toEqual([]);
    expect(await read(sure(given.students.get('nino')).browser)).toEqual({ headings: [], loose: [] });
    const observer = await aMember(server, given, 'olga', 'observer');
    expect(said(await read(observer))).toEqual(['Salt and time: Memo Log', '']);
    expect(said(await read(await aMember(server, given, 'tomas', 'assistant')))).toHaveLength(3);
  });

  it('says what takes a move back', async () => {
    const { was } = await place('Memo', { headingId: null, before: null });
    expect(said(await read())).toEqual(['Milk: Draft', 'Salt and time: Log', 'Memo']);
    const { outline } = await place('Memo', was);
    expect(said(outline)).toEqual(['Milk: Draft', 'Salt and time: Memo Log', '']);
    const salt = (await heading('Salt and time')).id;
    const move = async (body: object) =>
      (await given.instructor.post(`/api/headings/${salt}/move`).send(body).expect(200)).body as HeadingMoved;
    const moved = await move({ before: (await heading('Milk')).id });
    expect(said(moved.outline)).toEqual(['Salt and time: Memo Log', 'Milk: Draft', '']);
    expect(said((await move(moved.was)).outline)).toEqual(said(outline));
  });

  it('keeps what two rename at once, one told of the other', async () => {
    const { id: headingId, version } = await heading('Milk');
    const rename = (title: string) =>
      given.instructor.put(`/api/headings/${headingId}`).send({ title, version });
    await rename('Cow’s milk').expect(200);
    const { body } = await rename('Goat’s milk').expect(409);
    expect((body as { detail: string }).detail).toContain('“Cow’s milk”');
    expect(said(await read())[0]).toBe('Cow’s milk: Draft');
  });

  it('keeps the activities of a heading that is deleted, and has them under it when it is restored', async () => {
    const { id: headingId } = await heading('Salt and time');
    const to = await under('Salt and time');
    const { body } = await given.instructor.delete(`/api/headings/${headingId}`).expect(200);
    expect(said(body as OutlineView)).toEqual(['Cow’s milk: Draft', 'Memo Log']);
    const { detail } = (await place('Draft', to, 409)) as unknown as { detail: string };
    expect(detail).toBe('This heading was deleted meanwhile. Nothing was changed.');
    await given.instructor.delete(`/api/headings/${headingId}`).expect(404);
    await given.instructor.post(`/api/headings/${headingId}/restore`).send().expect(200);
    expect(said(await read())).toEqual(['Cow’s milk: Draft', 'Salt and time: Memo Log', '']);
  });

  it('keeps every move of several who move at once', async () => {
    const moves = ['Log', 'Memo', 'Draft', 'Log', 'Memo', 'Draft'].map(async (title, at) =>
      place(title, at < 3 ? { headingId: null, before: null } : await under('Cow’s milk')),
    );
    await Promise.all(moves);
    const { headings, loose } = await read();
    const all = [...headings.flatMap(({ activityIds }) => activityIds), ...loose];
    expect(all.toSorted()).toEqual([...ids.values()].toSorted());
  });

  it('lets one of two who rename at the same moment go first', async () => {
    const { id: headingId, version } = await heading('Salt and time');
    const answers = await Promise.all(
      ['Salt', 'Time', 'Both', 'None'].map((title) =>
        given.instructor.put(`/api/headings/${headingId}`).send({ title, version }),
      ),
    );
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 409, 409, 409]);
    const now = (await read()).headings.find((each) => each.id === headingId);
    expect(now?.version).toBe(Number(version) + 1);
    await given.instructor
      .put(`/api/headings/${headingId}`)
      .send({ title: 'Salt and time', version: now?.version })
      .expect(200);
  });

  it('is told to those who see what moved, and to no one else', async () => {
    const page = await follow(noor, given.course.id);
    await place('Draft', { headingId: null, before: null });
    await place('Memo', { headingId: null, before: null });
    ids.set('Wiki', (await released(given, { title: 'Wiki', kind: 'wiki', points: null })).id);
    expect(await page.until('activity.released')).toEqual(['activity.released']);
    await place('Log', { headingId: null, before: null });
    expect(await page.until('outline.changed')).toEqual(['outline.changed']);
    page.stop();
  });
});

describe('a link to an activity', () => {
  const find = (title: string, by: Browser) => by.get(`/api/activities/${id(title)}/copies`);

  it('leads each to their own group’s copy, staff to those of all, and others nowhere', async () => {
    const [crock, carboy] = given.board.groups;
    const copies = (body: unknown) =>
      (body as { copies: { copyId: string; group: { id: string } }[] }).copies;
    expect(copies((await find('Log', noor).expect(200)).body)).toEqual([
      {
        copyId: await copyOf(noor, given.course.id, 'Log'),
        group: expect.objectContaining({ id: crock?.id }),
      },
    ]);
    const all = copies((await find('Log', given.instructor).expect(200)).body);
    expect(all.map(({ group }) => group.id)).toEqual([crock?.id, carboy?.id]);
    await find('Memo', noor).expect(404);
    await find('Draft', noor).expect(404);
    await find('Draft', given.instructor).expect(404);
  });
});
