import { afterAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { RosterChangeList, RosterChanged, RosterEntry, RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { aCourse, base64, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

let server: TestServer | undefined;
let given: CourseForTests;
beforeEach(async () => {
  await server?.stop();
  server = await startTestServer();
  given = await aCourse(server, { students: 5 }); // noor and jorge in Crock, amina and kofi in Carboy, nino in none
});
afterAll(() => server?.stop());

const at = (path: string) => `/api/courses/${given.course.id}/roster${path}`;
const entries = async () => ((await given.instructor.get(at('')).expect(200)).body as RosterView).entries;
const entry = async (name: string) =>
  sure((await entries()).find((each) => each.email.startsWith(`${name}@`)));
const change = (body: object) => given.instructor.post(at('/changes')).send(body);
const changed = async (body: object) => (await change(body).expect(200)).body as RosterChanged;
const undo = (id: string | null) => given.instructor.post(at(`/changes/${id}/undo`));
const changes = async () =>
  ((await given.instructor.get(at('/changes')).expect(200)).body as RosterChangeList).changes;
const idOf = (name: string) => sure(given.students.get(name)).enrolmentId;
const aNewEntry = (more: object = {}) => ({
  act: 'add',
  entry: {
    email: 'cho@quillmere.example',
    name: 'Cho Min',
    familyName: null,
    reading: null,
    number: 'fe-9',
    role: 'student',
    attributes: { Lab: 'none' },
    ...more,
  },
});
/** Without what an undo cannot and need not restore: when someone came. */
const comparable = (all: readonly RosterEntry[]) =>
  all
    .map(({ joinedAt: _joinedAt, lastSeenAt: _seen, ...rest }) => ({
      ...rest,
      groups: rest.groups.map((group) => group.name),
    }))
    .sort((a, b) => a.email.localeCompare(b.email));

describe('one person', () => {
  it('is added, and goes without a trace when that is undone', async () => {
    const before = await entries();
    const { changeId } = await changed(aNewEntry());
    expect(await entry('cho')).toMatchObject({
      name: 'Cho Min',
      number: 'fe-9',
      role: 'student',
      attributes: { Lab: 'none' },
    });
    await undo(changeId).expect(200);
    expect(comparable(await entries())).toEqual(comparable(before));
  });

  it('is refused with a sentence if they are here already, or another has their number', async () => {
    expect((await change(aNewEntry({ email: 'NOOR@quillmere.example' })).expect(422)).body).toMatchObject({
      detail: expect.stringContaining('is in this course already'),
    });
    await changed(aNewEntry());
    expect(
      (await change(aNewEntry({ email: 'chu@quillmere.example', name: 'Chu' })).expect(422)).body,
    ).toMatchObject({
      detail: 'Cho Min and Chu would have the same number, fe-9. Give one of them another.',
    });
    expect((await change(aNewEntry({ email: 'nowhere' })).expect(422)).body).toMatchObject({
      issues: [{ message: 'Write the address like name@school.example.' }],
    });
  });

  it('is added once by several who add them at one moment, and the others are told', async () => {
    const answers = await Promise.all(Array.from({ length: 5 }, () => change(aNewEntry())));
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 422, 422, 422, 422]);
  });

  it('is dropped: the place is free, the work stays, nothing opens any more; and all of it comes back', async () => {
    await released(given);
    const noor = sure(given.students.get('noor')).browser;
    const copyId = await copyOf(noor, given.course.id);
    await noor.put(`/api/copies/${copyId}/part`).send({
      text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Kept' }] }] },
      version: 0,
    });
    const { changeId } = await changed({ act: 'drop', enrolmentIds: [idOf('noor')] });
    expect(await entry('noor')).toMatchObject({ leftAt: expect.any(String), groups: [] });
    await noor.get(`/api/copies/${copyId}`).expect(404);
    await noor.get(`/api/courses/${given.course.id}/rooms`).expect(404);
    await undo(changeId).expect(200);
    expect(await entry('noor')).toMatchObject({ leftAt: null, groups: [{ name: 'Crock' }] });
    await noor.get(`/api/copies/${copyId}`).expect(200);
  });

  it('is brought back without a place, which someone else may have by now', async () => {
    await changed({ act: 'drop', enrolmentIds: [idOf('noor')] });
    await changed({ act: 'restore', enrolmentIds: [idOf('noor')] });
    expect(await entry('noor')).toMatchObject({ leftAt: null, groups: [] });
    await changed({ act: 'drop', enrolmentIds: [idOf('noor')] });
    await changed(aNewEntry({ email: 'noor@quillmere.example', name: 'Noor Again', number: null }));
    expect(await entry('noor')).toMatchObject({
      enrolmentId: idOf('noor'),
      leftAt: null,
      name: 'Noor Again',
    });
  });

  it('loses their places on becoming staff, and the last instructor stays one', async () => {
    await changed({
      act: 'edit',
      edits: [{ enrolmentId: idOf('noor'), from: { role: 'student' }, to: { role: 'assistant' } }],
    });
    expect(await entry('noor')).toMatchObject({ role: 'assistant', groups: [] });
    const ilse = sure((await entries()).find((each) => each.role === 'instructor'));
    const step = { enrolmentId: ilse.enrolmentId, from: { role: 'instructor' }, to: { role: 'observer' } };
    expect((await change({ act: 'edit', edits: [step] }).expect(422)).body).toMatchObject({
      detail: expect.stringContaining('A course needs an instructor'),
    });
    expect((await change({ act: 'drop', enrolmentIds: [ilse.enrolmentId] }).expect(422)).body).toMatchObject({
      detail: expect.stringContaining('yourself'),
    });
  });

  it('keeps the account they sign in with when their address is corrected here', async () => {
    const edit = (from: string, to: string) => ({
      act: 'edit',
      edits: [{ enrolmentId: idOf('noor'), from: { email: from }, to: { email: to } }],
    });
    const { changeId } = await changed(edit('noor@quillmere.example', 'noor.h@quillmere.example'));
    await sure(given.students.get('noor')).browser.get('/api/session').expect(200); // theirs is still theirs, without this course
    await sure(given.students.get('noor')).browser.get(`/api/courses/${given.course.id}/rooms`).expect(404);
    await undo(changeId).expect(200);
    await sure(given.students.get('noor')).browser.get(`/api/courses/${given.course.id}/rooms`).expect(200);
    expect(
      (await change(edit('noor@quillmere.example', 'jorge@quillmere.example')).expect(422)).body,
    ).toMatchObject({
      detail: expect.stringContaining('the same address'),
    });
  });
});

describe('several people at once', () => {
  const attribute = (name: string, from: string | null, to: string | null) => ({
    enrolmentId: idOf(name),
    from: { attributes: { Lab: from } },
    to: { attributes: { Lab: to } },
  });

  it('are edited together or not at all, and whoever was changed meanwhile is named', async () => {
    await changed({
      act: 'edit',
      edits: [attribute('noor', null, 'some'), attribute('jorge', null, 'none')],
    });
    const refused = await change({
      act: 'edit',
      edits: [attribute('noor', 'some', 'plenty'), attribute('jorge', null, 'plenty')],
    }).expect(409);
    expect(refused.body).toMatchObject({
      detail: 'Jorge was changed meanwhile, so nothing was done. Look at the roster as it is now.',
    });
    expect(await entry('noor')).toMatchObject({ attributes: { Lab: 'some' } });
    await changed({ act: 'edit', edits: [attribute('noor', 'some', null)] });
    expect((await entry('noor')).attributes).toEqual({});
  });

  it('are told of in order, with who did it, and each undone once', async () => {
    const { changeId } = await changed({ act: 'drop', enrolmentIds: [idOf('noor'), idOf('jorge')] });
    await undo(changeId).expect(200);
    expect((await undo(changeId).expect(200)).body).toEqual({ changeId: null, people: 0, seated: 0 });
    const [last, before] = await changes();
    expect(last).toMatchObject({ kind: 'undo', counts: { back: 2 }, isUndone: false });
    expect(before).toMatchObject({
      kind: 'drop',
      counts: { dropped: 2 },
      names: ['Noor', 'Jorge'],
      isUndone: true,
      by: expect.any(String),
    });
  });

  it('are not brought back over what happened since', async () => {
    const { changeId } = await changed({ act: 'drop', enrolmentIds: [idOf('noor')] });
    await changed({ act: 'restore', enrolmentIds: [idOf('noor')] });
    await undo(changeId).expect(409);
    const board = (await given.instructor.get(`/api/sets/${given.set.id}/board`).expect(200))
      .body as BoardView;
    expect(sure(board.students.find((student) => student.enrolmentId === idOf('noor'))).seats).toEqual([]);
  });
});

describe('a class file', () => {
  const source = {
    kind: 'file',
    fileName: 'c.csv',
    contentBase64: base64(
      'Email,Name,Role\nnoor@quillmere.example,Noor H,Tutor\nnew@quillmere.example,New,\n',
    ),
  };
  const seenNow = async () =>
    (
      await given.instructor
        .post(at('/preview'))
        .send({ source, meanings: null, newRoles: [2] })
        .expect(200)
    ).body as ImportPreview;

  it('names who is missing with the places they would leave, drops those chosen, and is undone as a whole', async () => {
    const before = comparable(await entries());
    const seen = await seenNow();
    expect(seen.missing.map((person) => [person.name, person.groups])).toEqual(
      expect.arrayContaining([
        ['Jorge', ['Crock']],
        ['Nino', []],
      ]),
    );
    const drop = [idOf('jorge')];
    const answer = await given.instructor
      .post(at('/import'))
      .send({
        source,
        meanings: ['email', 'name', 'role'],
        newRoles: [2],
        leaveOutLines: [],
        drop,
        fingerprint: seen.fingerprint,
      })
      .expect(200);
    expect(answer.body).toMatchObject({ added: 1, changed: 1, dropped: 1 });
    expect(await entry('noor')).toMatchObject({ role: 'assistant', name: 'Noor H', groups: [] });
    expect(await entry('jorge')).toMatchObject({ leftAt: expect.any(String) });
    await undo((answer.body as RosterChanged).changeId).expect(200);
    expect(comparable(await entries())).toEqual(before);
  });

  it('is taken back even where someone of it has begun: they leave, the others go without a trace', async () => {
    const many = {
      kind: 'paste',
      text: Array.from({ length: 40 }, (_, at) => `Many ${at} <many${at}@quillmere.example>`).join('\n'),
    };
    const seen = (
      await given.instructor.post(at('/preview')).send({ source: many, meanings: null }).expect(200)
    ).body as ImportPreview;
    const answer = await given.instructor
      .post(at('/import'))
      .send({ source: many, meanings: ['email', 'name'], leaveOutLines: [], fingerprint: seen.fingerprint })
      .expect(200);
    const board = (await given.instructor.get(`/api/sets/${given.set.id}/board`).expect(200))
      .body as BoardView;
    const student = sure(board.students.find((each) => each.name === 'Many 17')).enrolmentId;
    await given.instructor
      .post(`/api/sets/${given.set.id}/place`)
      .send({ moves: [{ student, from: null, to: sure(board.groups[0]).id }] })
      .expect(200);
    await undo((answer.body as RosterChanged).changeId).expect(200);
    expect(
      (await entries())
        .filter((each) => each.email.startsWith('many'))
        .map((each) => [each.name, each.leftAt !== null, each.groups]),
    ).toEqual([['Many 17', true, []]]);
  });

  it('leaves out every line that is to be skipped, and changes no role that was not said', async () => {
    const preview = { source, meanings: ['email', 'name', 'role'] };
    const seen = (await given.instructor.post(at('/preview')).send(preview).expect(200))
      .body as ImportPreview;
    expect(seen.rows[0]).toMatchObject({ otherRole: { told: 'assistant', isTaken: false } });
    const answer = await given.instructor
      .post(at('/import'))
      .send({ ...preview, leaveOutLines: [3], fingerprint: seen.fingerprint })
      .expect(200);
    expect(answer.body).toMatchObject({ added: 0, changed: 1, leftOut: 1 });
    expect(await entry('noor')).toMatchObject({
      role: 'student',
      name: 'Noor H',
      groups: [expect.anything()],
    });
    expect((await entries()).map((each) => each.email)).not.toContain('new@quillmere.example');
    await undo((answer.body as RosterChanged).changeId).expect(200);
  });

  it('drops no one whom the file names', async () => {
    const seen = await seenNow();
    const body = {
      source,
      meanings: ['email', 'name', 'role'],
      newRoles: [2],
      leaveOutLines: [],
      drop: [idOf('noor')],
      fingerprint: seen.fingerprint,
    };
    await given.instructor.post(at('/import')).send(body).expect(409);
    expect(await entry('noor')).toMatchObject({ leftAt: null });
  });
});

describe('who may change the roster', () => {
  it('is the instructor alone; for everyone else it is not there', async () => {
    const { changeId } = await changed(aNewEntry());
    const outsider = await sure(server).instructor('other@quillmere.example');
    for (const browser of [outsider, sure(given.students.get('noor')).browser]) {
      await browser.get(at('/changes')).expect(404);
      await browser.post(at('/changes')).send(aNewEntry()).expect(404);
      await browser.post(at(`/changes/${changeId}/undo`)).expect(404);
    }
    const own = (
      await outsider
        .post('/api/courses')
        .send({ code: 'O', title: 'Other', term: '', timeZone: 'UTC' })
        .expect(200)
    ).body as { id: string };
    await outsider.post(`/api/courses/${own.id}/roster/changes/${changeId}/undo`).expect(404);
    await outsider
      .post(`/api/courses/${own.id}/roster/changes`)
      .send({ act: 'drop', enrolmentIds: [idOf('noor')] })
      .expect(404);
  });
});
