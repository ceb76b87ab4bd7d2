import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { MarkView } from '@jigsaw/contract/marks';
import type { BoardView } from '@jigsaw/contract/placing';
import type { ActivityView } from '@jigsaw/contract/release';
import type { GroupSetView } from '@jigsaw/contract/sets';
import { settingsOf } from '@jigsaw/contract/sets';
import type { PageView, WikiView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { aCourse, anAssignment, aSheet, aText, base64, copyOf, released } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { password, startTestServer } from '../test/testServer.js';

let server: TestServer;
let given: CourseForTests;
let operations: readonly Operation[];

interface Operation {
  /** As the API document calls it. */
  readonly id: string;
  readonly method: 'post' | 'put' | 'patch';
  readonly path: string;
  readonly by: Browser;
  /** What is taken as it is, at this moment. */
  readonly body: () => object | Promise<object>;
}

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server);
  operations = await allOperations();
});
afterAll(() => server.stop());

async function allOperations(): Promise<Operation[]> {
  const { instructor, course, set, board } = given;
  const noor = sure(given.students.get('noor'));
  const [crock] = board.groups;
  const read = async <Answer>(path: string, by: Browser = instructor) =>
    (await by.get(`/api/${path}`)).body as Answer;
  const live = await released(given);
  await released(given, { kind: 'discussion', title: 'Talk', settings: {} });
  await released(given, { kind: 'wiki', title: 'Pages', settings: {} });
  const copyId = await copyOf(noor.browser, course.id);
  const talk = await copyOf(noor.browser, course.id, 'Talk');
  const wiki = await copyOf(noor.browser, course.id, 'Pages');
  const post = { id: randomUUID(), parentId: null, text: aText('pH') };
  await noor.browser.post(`/api/copies/${talk}/posts`).send(post).expect(200);
  const [page] = (await read<WikiView>(`copies/${wiki}/wiki`, noor.browser)).pages;
  const other = (
    await instructor
      .post(`/api/courses/${course.id}/sets`)
      .send({ name: 'Panels', shape: { by: 'count', groups: 2 }, capacity: null, pattern: 'Panel {n}', names: [], signUp: { opens: null, closes: null, showsNames: true } })
      .expect(200)
  ).body as GroupSetView; // prettier-ignore
  const panels = (await read<BoardView>(`sets/${other.id}/board`)).groups;
  const activity = () => read<ActivityView>(`activities/${live.id}`);
  const versionOf = async () => (await activity()).version;
  const sheet = () => read<MarkView>(`copies/${copyId}/marks/group`);
  const setNow = async () => (await read<{ sets: GroupSetView[] }>(`courses/${course.id}/sets`)).sets.find((each) => each.id === set.id) ?? set; // prettier-ignore
  const groupNow = async () => sure((await read<BoardView>(`sets/${set.id}/board`)).groups[0]);
  const seatOf = async (setId: string) => (await read<BoardView>(`sets/${setId}/board`)).students.find((each) => each.enrolmentId === noor.enrolmentId)?.seats[0]?.groupId ?? null; // prettier-ignore
  const by = instructor;
  const one = (id: string, method: Operation['method'], path: string, body: Operation['body'], who = by): Operation => ({ id, method, path: `/api/${path}`, body, by: who }); // prettier-ignore
  const inCourse = (path: string) => `courses/${course.id}/${path}`;
  const reach = { to: wholeSet(set.id), outsiders: 'hidden' };
  const units = async () => ({ units: [{ copyId, unit: 'group', version: (await sheet()).version }] });
  const draft = { ...anAssignment(), settings: { attempts: 'latest' } };
  const source = { kind: 'paste', text: 'Ada Moss <ada.moss@quillmere.example>' };
  const file = { kind: 'file', fileName: 'a.csv', contentBase64: base64('Email,Name\nb@quillmere.example,Ben\n'), delimiter: null }; // prettier-ignore
  const entry = { name: 'Cleo Ek', familyName: null, reading: null, email: `cleo@quillmere.example`, number: '7', role: 'student', attributes: { Home: 'Faro' } }; // prettier-ignore
  // Those that others build on come first: what is spoiled and taken all the same changes the course.
  return [
    one('orderGroupSets', 'put', inCourse('sets/order'), async () => ({
      setIds: (await read<{ sets: GroupSetView[] }>(`courses/${course.id}/sets`)).sets.map((each) => each.id),
    })),
    one('nameGroup', 'patch', `groups/${sure(crock).id}/naming`, () => ({ name: 'Mine', motto: 'Salt', version: 1 }), noor.browser), // prettier-ignore
    one(
      'takePlace',
      'post',
      `sets/${other.id}/sign-up`,
      () => ({ groupId: sure(panels[1]).id }),
      noor.browser,
    ),
    one('markSeenMarks', 'post', inCourse('my-marks/seen'), () => ({ until: '2026-11-10T10:00:00.000Z' }), noor.browser), // prettier-ignore
    one('markSeen', 'post', `copies/${talk}/seen`, () => ({ what: 'all' }), noor.browser),
    one('savePart', 'put', `copies/${copyId}/part`, async () => ({ text: aText('mine'), version: (await read<{ yours: { version: number } | null }>(`copies/${copyId}/work`, noor.browser)).yours?.version ?? 0 }), noor.browser), // prettier-ignore
    one('handIn', 'post', `copies/${copyId}/hand-in`, () => ({ attempt: 1 }), noor.browser), // prettier-ignore
    one('addPost', 'post', `copies/${talk}/posts`, () => ({ ...post, id: randomUUID() }), noor.browser),
    one('changePost', 'put', `copies/${talk}/posts/${post.id}`, () => ({ text: aText('3.4'), version: 1 }), noor.browser), // prettier-ignore
    one(
      'addPage',
      'post',
      `copies/${wiki}/wiki/pages`,
      () => ({ id: randomUUID(), title: randomUUID() }),
      noor.browser,
    ),
    one('savePage', 'put', `copies/${wiki}/wiki/pages/${sure(page).id}`, async () => ({ title: 'Log', text: aText('3.4'), basedOn: (await read<PageView>(`copies/${wiki}/wiki/pages/${sure(page).id}`, noor.browser)).revision }), noor.browser), // prettier-ignore
    one('foreseeMarks', 'post', `activities/${live.id}/marks-foreseen`, () => ({ extension: null })),
    one('saveMark', 'put', `copies/${copyId}/marks/group`, async () => ({ ...aSheet, typedMark: '30', feedback: 'Good', adjustments: [{ enrolmentId: noor.enrolmentId, adjustment: { kind: 'adjusted', by: '1', reason: 'Led' } }], version: (await sheet()).version })), // prettier-ignore
    one('releaseMarks', 'post', `copies/${copyId}/marks/group/release`, async () => ({ version: (await sheet()).version })), // prettier-ignore
    one('recallMarks', 'post', `copies/${copyId}/marks/group/recall`, async () => ({ version: (await sheet()).version })), // prettier-ignore
    one('releaseManyMarks', 'post', `releases/${sure(live.release).id}/marks/release`, units),
    one('recallManyMarks', 'post', `releases/${sure(live.release).id}/marks/recall`, units),
    one('takeSuggestedMarks', 'post', `releases/${sure(live.release).id}/marks/take-suggested`, units),
    one('signIn', 'post', 'session', () => ({ email: 'noor@quillmere.example', password }), server.browser()),
    one('signInAsDemoPerson', 'post', 'session/demo', () => ({ personId: randomUUID() }), server.browser()),
    one('lookAtLink', 'post', 'session/link', () => ({ token: 'a'.repeat(30) }), server.browser()),
    one(
      'openLink',
      'post',
      'session/password',
      () => ({ token: 'a'.repeat(30), password }),
      server.browser(),
    ),
    one('mailLink', 'post', 'session/mailed-link', () => ({ email: 'a@b.example' }), server.browser()),
    one('createCourse', 'post', 'courses', () => ({
      code: 'A',
      title: 'B',
      term: 'C',
      timeZone: 'Europe/Lisbon',
    })),
    one('changeAssistants', 'put', inCourse('assistants'), () => ({ assistantsSee: 'all' })),
    one('createGroupSet', 'post', inCourse('sets'), () => ({ name: randomUUID(), shape: { by: 'count', groups: 1 }, capacity: 3, pattern: 'T {n}', names: ['One'], activities: [{ draft, isReleased: false }] })), // prettier-ignore
    one('copyGroupSet', 'post', `sets/${set.id}/copies`, () => ({ name: randomUUID(), withMembers: true })),
    one('deriveExperts', 'post', `sets/${set.id}/experts`, () => ({ name: randomUUID(), topics: ['Salt', 'Starch'], most: 4, seed: 3 })), // prettier-ignore
    one('workOutDeal', 'post', inCourse('deals'), () => ({ students: [], groups: [], rules: [], seed: 1 })),
    one('changeGroupSet', 'patch', `sets/${set.id}`, async () => settingsOf(await setNow())),
    one('changeRules', 'put', `sets/${set.id}/rules`, async () => ({ rules: [{ kind: 'apart', students: [noor.enrolmentId, sure(given.students.get('amina')).enrolmentId] }], version: (await setNow()).version })), // prettier-ignore
    one('freezeGroupSet', 'post', `sets/${other.id}/freeze`, () => ({ isFrozen: false })),
    one('putAwayGroupSet', 'post', `sets/${other.id}/put-away`, () => ({ isPutAway: false })),
    one('editGroup', 'patch', `groups/${sure(crock).id}`, async () => { const { name, capacity, isLocked, version } = await groupNow(); return { name, capacity, isLocked, version }; }), // prettier-ignore
    one('editGroups', 'put', `sets/${other.id}/groups`, () => ({ groups: panels.map(({ id, name, capacity, isLocked, version }) => ({ id, name, capacity, isLocked, version })), removed: [] })), // prettier-ignore
    one('leadGroups', 'put', `sets/${set.id}/leads`, () => ({ leads: [{ groupId: sure(crock).id, enrolmentIds: [] }] })), // prettier-ignore
    one('placeStudents', 'post', `sets/${other.id}/place`, async () => ({ moves: [{ student: noor.enrolmentId, from: await seatOf(other.id), to: sure(panels[0]).id }], why: 'Swap' })), // prettier-ignore
    one('draftActivity', 'post', inCourse('activities'), () => draft),
    one('editActivity', 'put', `activities/${live.id}`, async () => ({
      ...draft,
      version: await versionOf(),
    })),
    one('publishActivity', 'post', `activities/${live.id}/publish`, async () => ({
      version: await versionOf(),
    })),
    one('discardChanges', 'post', `activities/${live.id}/discard`, async () => ({
      version: await versionOf(),
    })),
    one('releaseActivity', 'post', `activities/${live.id}/release`, async () => ({ ...reach, mode: 'own', goesLiveAt: null, version: await versionOf() })), // prettier-ignore
    one('copyActivity', 'post', `activities/${live.id}/copy`, () => ({ keepsTitle: true })),
    one('changeReach', 'put', `activities/${live.id}/reach`, () => reach),
    one('foresee', 'post', `activities/${live.id}/reach`, () => ({ ...reach, mode: 'own' })),
    one('grantExtension', 'put', `activities/${live.id}/extensions/${sure(crock).id}`, () => ({ due: '2026-12-01T10:00:00.000Z', closes: null, reason: 'Ill' })), // prettier-ignore
    one('previewImport', 'post', inCourse('roster/preview'), () => ({ source, role: 'student', meanings: null, mends: [{ line: 1, cells: ['a@b.example', 'A'] }], newAddresses: [] })), // prettier-ignore
    one('previewImport', 'post', inCourse('roster/preview'), () => ({ source: file, role: 'student', meanings: null })), // prettier-ignore
    one('applyImport', 'post', inCourse('roster/import'), () => ({ source, role: 'student', meanings: ['email', 'name'], leaveOutLines: [], fingerprint: 'x', drop: [noor.enrolmentId] })), // prettier-ignore
    one('chooseKind', 'put', inCourse('roster/attributes'), () => ({ name: 'Home', kind: 'category' })),
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'add', entry: { ...entry, email: `${randomUUID()}@quillmere.example`, number: randomUUID().slice(0, 8) } })), // prettier-ignore
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'edit', edits: [{ enrolmentId: noor.enrolmentId, from: {}, to: { number: '12', attributes: { Home: 'Faro' } } }] })), // prettier-ignore
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'bring-back', enrolmentIds: [noor.enrolmentId] })), // prettier-ignore
    one('changeRoster', 'post', inCourse('roster/changes'), () => ({ act: 'rename-attribute', from: 'Home', to: 'Town' })), // prettier-ignore
    one('invitePeople', 'post', inCourse('roster/invitations'), () => ({ enrolmentIds: [noor.enrolmentId] })),
    one('writeToPeople', 'post', inCourse('roster/messages'), () => ({ enrolmentIds: [noor.enrolmentId], subject: 'Hello', text: 'Bring salt' })), // prettier-ignore
  ];
}

/** Ours end like sentences, and are not what a library says. */
const isSentence = (detail: string) =>
  /[.!]$/.test(detail) && !/^(Invalid|Unrecognized|Too (big|small))|undefined/.test(detail);

const badTexts = ['\0', 'a\0b', '\ud800', 'x\udfff', '\u0007', '\u202eabc', '\u200b', '', ' ', 'a'.repeat(210_000), '-1', '<b>', "'); DROP TABLE"]; // prettier-ignore
const badNumbers = [2 ** 31, 2 ** 53, -1, -(2 ** 31) - 1, 1.5, 1e308];
const badOfAnyType = [null, {}, [], true, { a: { a: { a: 1 } } }];

/** The body once for each value in it, with that value gone bad in each way. */
function* spoiled(body: unknown): Generator {
  if (Array.isArray(body)) {
    yield [...body, ...body]; // everything twice
    yield [];
    for (const [at, each] of body.entries())
      for (const bad of spoiled(each)) yield body.map((one: unknown, place) => (place === at ? bad : one));
  } else if (typeof body === 'object' && body !== null) {
    for (const [key, value] of Object.entries(body)) {
      for (const bad of spoiled(value)) yield { ...body, [key]: bad };
      for (const odd of ['\0', '\ud800', '__proto__']) yield { ...body, [`${key}${odd}`]: value };
    }
  } else {
    if (typeof body === 'string') yield* badTexts;
    if (typeof body === 'number') yield* badNumbers;
    yield* badOfAnyType;
  }
}

const deep = (depth: number) => `${'[1,'.repeat(depth)}1${']'.repeat(depth)}`;

/** Without a link, a demo, a preview before it, a set in which members name their group, or with what is released already. */
const neverTaken = [
  'nameGroup 404',
  'signInAsDemoPerson 404',
  'lookAtLink 410',
  'openLink 410',
  'publishActivity 409',
  'releaseActivity 409',
  'applyImport 409',
];

describe('every operation that takes something', () => {
  it('is among those that are tried here', async () => {
    const { body } = (await server.browser().get('/api/openapi.json').expect(200)) as {
      body: { paths: Record<string, Record<string, { operationId: string; requestBody?: unknown }>> };
    };
    const taking = Object.values(body.paths)
      .flatMap((path) => Object.values(path))
      .filter((operation) => operation.requestBody !== undefined);
    expect(new Set(operations.map((each) => each.id))).toEqual(
      new Set(taking.map((operation) => operation.operationId)),
    );
  });

  it('is taken as it is, so that what is spoiled gets as far as anything does', async () => {
    const refused: string[] = [];
    for (const { id, method, path, by, body } of operations) {
      const { status } = await by[method](path).send(await body());
      if (status >= 400) refused.push(`${id} ${status}`);
    }
    expect(refused).toEqual(neverTaken);
  });

  it('answers whatever is in its place with a sentence of our own, and never breaks', async () => {
    const broken: string[] = [];
    let tried = 0;
    let refused = 0;
    for (const { id, method, path, by, body } of operations) {
      const sound = await body();
      for (const bad of spoiled(sound)) {
        const fresh = JSON.stringify({ ...(await body()), ...changedPart(sound, bad) });
        const answer = await by[method](path).set('Content-Type', 'application/json').send(fresh);
        tried += 1;
        if (answer.status >= 400) refused += 1;
        const isOurs = answer.status < 400 || isSentence((answer.body as { detail?: string }).detail ?? '');
        const isProblem = answer.status < 400 || String(answer.headers['content-type']).startsWith('application/problem+json'); // prettier-ignore
        if (answer.status >= 500 || !isOurs || !isProblem)
          broken.push(`${id} ${answer.status} ${fresh.slice(0, 300)} → ${answer.text.slice(0, 200)}`);
      }
    }
    expect([broken.length, ...broken.slice(0, 20)]).toEqual([0]);
    expect(tried).toBeGreaterThan(3000);
    expect(refused).toBeGreaterThan(tried / 4);
    expect(refused).toBeLessThan(tried);
  }, 600_000);

  it('refuses bodies that are too large, too deep, or no JSON, with and without a session', async () => {
    const bodies: [string, string | undefined, number[]][] = [
      ['application/json', deep(20_000), [401, 413, 422]],
      ['application/json', deep(70), [401, 422]],
      ['application/json', `{"a":"${'a'.repeat(17_000_000)}"}`, [401, 413]],
      ['application/json', '{"a":', [401, 422]],
      ['application/json; charset=utf-7', '{}', [401, 422]],
      ['application/json; charset=nonsense', '{}', [401, 422]],
      ['text/html', '<b>', [401, 404, 422]],
      ['application/x-www-form-urlencoded', 'a=b', [401, 404, 422]],
    ];
    for (const by of [given.instructor, server.browser()])
      for (const { method, path } of operations
        .filter((each) => each.by === given.instructor || each.id === 'signIn')
        .slice(0, 12))
        for (const [type, body, allowed] of bodies) {
          const answer = await by[method](path).set('Content-Type', type).send(body);
          expect([path, type, body?.slice(0, 20), answer.status]).toEqual([
            path,
            type,
            body?.slice(0, 20),
            allowed.includes(answer.status) ? answer.status : allowed,
          ]);
          expect(answer.headers['content-type']).toContain('application/problem+json');
        }
  }, 120_000);

  it('takes nothing in from somebody who is not signed in: it is refused before it is read', async () => {
    for (const { method, path, by } of operations) {
      if (by !== given.instructor) continue;
      await server
        .browser()
        [method](path)
        .set('Content-Type', 'application/json')
        .send('{"no JSON')
        .expect(401);
    }
  });

  it('answers addresses that are none, and headers that are nonsense, like any other that is not there', async () => {
    const paths = [
      '/api/copies/%ff',
      '/api/copies/%E0%A4%A',
      '/api/courses/a%00b/roster',
      `/api/courses/${'a'.repeat(9000)}`,
      `/api/courses/${given.course.id}/changes%00`,
      `/api/copies/${randomUUID()}/files?name=%00&type=a%00`,
      '/api/..%2f..%2fetc%2fpasswd',
      '/api/__proto__/constructor',
    ];
    for (const by of [given.instructor, server.browser()])
      for (const path of paths) {
        const answer = await by
          .get(path)
          .set('X-Jigsaw-Page', '\u00ff'.repeat(50))
          .set('Cookie', 'jigsaw=%ff; a=b\u00fe');
        expect([path, answer.status >= 400 && answer.status < 500]).toEqual([path, true]);
        expect(answer.headers['content-type']).toContain('application/problem+json');
      }
  });

  it('does not take compressed bodies, which unpack to anything', () =>
    given.instructor
      .post('/api/courses')
      .set('Content-Type', 'application/json')
      .set('Content-Encoding', 'gzip')
      .send(Buffer.from('{}').toString('base64'))
      .expect(422));
});

/** Of a spoiled body what differs from the sound one, so that what is fresh (versions, new ids) stays fresh. */
function changedPart(sound: object, bad: unknown): object {
  const before = sound as Record<string, unknown>;
  return Object.fromEntries(Object.entries(bad as object).filter(([key, value]) => before[key] !== value));
}
