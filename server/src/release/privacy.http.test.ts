import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { DataSource } from 'typeorm';
import type { ActivityDraft } from '@jigsaw/contract/release';
import type { RoomList } from '@jigsaw/contract/rooms';
import type { WikiView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { newId } from '../platform/ids.js';
import { aCourse, addFile, anAssignment, aSheet, aText, copyOf, released, toRead } from '../test/aCourse.js';
import type { CourseForTests } from '../test/aCourse.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';
import { theClass } from '@jigsaw/core/release';

interface Ask {
  readonly method: 'get' | 'put' | 'post' | 'delete';
  readonly path: string;
  readonly body?: object;
}
/** What Crock has of one kind, by id. */
interface Things {
  readonly copy: string;
  readonly thing: string;
  readonly release: string;
  readonly activity: string;
  readonly group: string;
  readonly person: string;
}

let server: TestServer;
let given: CourseForTests;
const crocks = new Map<string, Things>();

const student = (name: string): Browser => sure(given.students.get(name)).browser;
const questionId = newId();
const unknownId = '01920000-0000-7000-8000-00000000abcd';
const unknown: Things = {
  copy: unknownId,
  thing: unknownId,
  release: unknownId,
  activity: unknownId,
  group: unknownId,
  person: unknownId,
};

/** Every address by which a copy of any kind, or what is set for it, could be asked for. */
const common = ({ copy, release, activity, group, person }: Things): Ask[] => [
  { method: 'get', path: `/api/copies/${copy}` },
  { method: 'post', path: `/api/copies/${copy}/seen`, body: { what: 'all' } },
  { method: 'get', path: `/api/copies/${copy}/own-files/${unknownId}/versions/0` },
  { method: 'get', path: `/api/copies/${copy}/marks/group` },
  { method: 'get', path: `/api/copies/${copy}/marks/${person}` },
  { method: 'put', path: `/api/copies/${copy}/marks/group`, body: { ...aSheet, typedMark: '40' } },
  { method: 'post', path: `/api/copies/${copy}/marks/group/release`, body: { version: 1 } },
  { method: 'post', path: `/api/copies/${copy}/marks/group/recall`, body: { version: 1 } },
  { method: 'get', path: `/api/releases/${release}/desk` },
  { method: 'get', path: `/api/activities/${activity}` },
  { method: 'put', path: `/api/activities/${activity}`, body: { ...anAssignment(), version: 1 } },
  { method: 'post', path: `/api/activities/${activity}/copy` },
  { method: 'post', path: `/api/activities/${activity}/withdraw` },
  {
    method: 'post',
    path: `/api/activities/${activity}/reach`,
    body: { to: theClass, mode: 'common', outsiders: 'hidden' },
  },
  {
    method: 'put',
    path: `/api/activities/${activity}/reach`,
    body: { to: theClass, outsiders: 'hidden', was: { to: theClass, outsiders: 'hidden' } },
  },
  ...[`extensions/${group}`, `student-extensions/${person}`].flatMap((way): Ask[] => {
    const path = `/api/activities/${activity}/${way}`;
    const put = { path, body: { due: '2026-12-01T10:00:00.000Z', reason: 'why' } };
    return [{ method: 'put', ...put }, { method: 'delete', path }]; // prettier-ignore
  }),
];

const handedIn = ({ copy, thing }: Things): Ask[] => [
  { method: 'get', path: `/api/copies/${copy}/work` },
  { method: 'put', path: `/api/copies/${copy}/part`, body: { text: aText('mine'), version: 0 } },
  { method: 'post', path: `/api/copies/${copy}/hand-in`, body: { attempt: 2 } },
  { method: 'get', path: `/api/copies/${copy}/files/${thing}` },
  { method: 'delete', path: `/api/copies/${copy}/files/${thing}` },
  { method: 'post', path: `/api/copies/${copy}/files/${thing}/restore` },
];

const talkedIn = ({ copy, thing }: Things): Ask[] => [
  { method: 'get', path: `/api/copies/${copy}/discussion` },
  { method: 'get', path: `/api/copies/${copy}/discussion?after=${thing}` },
  {
    method: 'post',
    path: `/api/copies/${copy}/posts`,
    body: { id: newId(), parentId: null, text: aText('mine') },
  },
  {
    method: 'post',
    path: `/api/copies/${copy}/posts`,
    body: { id: newId(), parentId: thing, text: aText('mine') },
  },
  { method: 'put', path: `/api/copies/${copy}/posts/${thing}`, body: { text: aText('mine'), version: 1 } },
  { method: 'delete', path: `/api/copies/${copy}/posts/${thing}` },
  { method: 'post', path: `/api/copies/${copy}/posts/${thing}/restore` },
];

/** Every address of what is inside a copy, by kind. A kind that is missing here fails below. */
const inside: Readonly<Record<string, (things: Things) => Ask[]>> = {
  assignment: handedIn,
  folder: handedIn,
  discussion: talkedIn,
  notice: talkedIn,
  call: ({ copy }) => [
    { method: 'get', path: `/api/copies/${copy}/call` },
    { method: 'post', path: `/api/copies/${copy}/call/visits`, body: { id: newId() } },
    { method: 'put', path: `/api/copies/${copy}/call/door`, body: { address: '', version: 0 } },
  ],
  questionnaire: ({ copy, thing, activity }) => [
    { method: 'get', path: `/api/copies/${copy}/answers` },
    {
      method: 'put',
      path: `/api/copies/${copy}/answers`,
      body: { answers: { [thing]: 4 }, version: 0, isAnonymous: false },
    },
    { method: 'get', path: `/api/activities/${activity}/answers` },
    { method: 'get', path: `/api/activities/${activity}/answers.csv` },
  ],
  resource: ({ copy, thing }) => [{ method: 'get', path: `/api/copies/${copy}/attached/${thing}` }],
  event: ({ copy }) => [{ method: 'get', path: `/api/copies/${copy}/event.ics` }],
  wiki: ({ copy, thing }) => [
    { method: 'get', path: `/api/copies/${copy}/wiki` },
    { method: 'post', path: `/api/copies/${copy}/wiki/pages`, body: { id: newId(), title: 'Mine' } },
    { method: 'get', path: `/api/copies/${copy}/wiki/pages/${thing}` },
    {
      method: 'put',
      path: `/api/copies/${copy}/wiki/pages/${thing}`,
      body: { title: 'Mine', text: aText('mine'), basedOn: 2 },
    },
    { method: 'delete', path: `/api/copies/${copy}/wiki/pages/${thing}` },
    { method: 'post', path: `/api/copies/${copy}/wiki/pages/${thing}/restore` },
    { method: 'get', path: `/api/copies/${copy}/wiki/pages/${thing}/revisions/2` },
  ],
};
const kinds = Object.keys(inside);
const all = (kind: string, things: Things) => [...common(things), ...sure(inside[kind])(things)];

beforeAll(async () => {
  server = await startTestServer();
  given = await aCourse(server, { students: 5, groups: 2 }); // Crock: noor, jorge; Carboy: amina, kofi; nino is unplaced
  for (const kind of kinds) {
    const activity = await released(given, { ...draftOf(kind), title: `Crock’s ${kind}` });
    const copy = await copyOf(student('noor'), given.course.id, `Crock’s ${kind}`);
    crocks.set(kind, {
      copy,
      thing: await fill(kind, copy),
      release: sure(activity.release).id,
      activity: activity.id,
      group: sure(given.board.groups[0]).id,
      person: sure(given.students.get('noor')).enrolmentId,
    });
  }
});
afterAll(() => server.stop());

/** Of a kind in which nothing is due, without a date. */
const draftOf = (kind: string): Partial<ActivityDraft> => {
  if (kind === 'event')
    return toRead(kind, {
      settings: { starts: '2026-11-12T10:00:00.000Z', ends: '2026-11-12T12:00:00.000Z' },
    });
  if (kind === 'questionnaire')
    return toRead(kind, { settings: { questions: [{ id: questionId, kind: 'scale', text: 'How sour?' }] } });
  return ['notice', 'resource', 'call'].includes(kind) ? toRead(kind) : { kind };
};

/** Something in Crock's copy, and its id. */
async function fill(kind: string, copy: string): Promise<string> {
  if (['event', 'resource', 'call'].includes(kind)) return unknownId;
  if (kind === 'discussion' || kind === 'notice') {
    const id = newId();
    await student('noor')
      .post(`/api/copies/${copy}/posts`)
      .send({ id, parentId: null, text: aText('Only for Crock.') })
      .expect(200);
    return id;
  }
  if (kind === 'questionnaire') {
    const given = { answers: { [questionId]: 3 }, version: 0, isAnonymous: false };
    await student('noor').put(`/api/copies/${copy}/answers`).send(given).expect(200);
    return questionId;
  }
  if (kind === 'wiki') {
    const { pages } = (await student('noor').get(`/api/copies/${copy}/wiki`).expect(200)).body as WikiView;
    await student('noor')
      .put(`/api/copies/${copy}/wiki/pages/${sure(pages[0]).id}`)
      .send({ title: 'Log', text: aText('Only for Crock.'), basedOn: 1 })
      .expect(200);
    return sure(pages[0]).id;
  }
  const work = await addFile(student('noor'), copy, 'notes.txt', Buffer.from('pH 4.4'));
  await student('noor').post(`/api/copies/${copy}/hand-in`).send({ attempt: 1 }).expect(200);
  return sure(work.files[0]).id;
}

let elsewhere: Browser | undefined;
const outsiders = [
  'another group’s member',
  'a student in no group',
  'another course’s instructor',
  'a dropped member',
];
async function outsider(who: string): Promise<Browser> {
  if (who === 'another group’s member') return student('amina');
  if (who === 'a student in no group') return student('nino');
  if (who === 'another course’s instructor')
    return (elsewhere ??= await server.instructor('elsewhere@quillmere.example'));
  await server.app
    .get(DataSource)
    .query(`UPDATE "enrolment" SET "leftAt" = now() WHERE "id" = $1`, [
      sure(given.students.get('jorge')).enrolmentId,
    ]);
  return student('jorge');
}

describe('what is not released to you does not exist for you', () => {
  it('is asked below of every kind that is registered', async () => {
    const { Kinds } = await import('./kinds.js');
    expect(
      server.app
        .get(Kinds, { strict: false })
        .all.map((kind) => kind.name)
        .sort(),
    ).toEqual([...kinds].sort());
  });

  it.each(outsiders.flatMap((who) => kinds.map((kind) => [who, kind] as const)))(
    'answers %s, of a %s, as for ids that do not exist',
    async (who, kind) => {
      const browser = await outsider(who);
      const absent = all(kind, unknown);
      for (const [at, { method, path, body }] of all(kind, sure(crocks.get(kind))).entries()) {
        const asked = await browser[method](path).send(body);
        const never = await browser[method](sure(absent[at]).path).send(sure(absent[at]).body);
        expect({ path, status: asked.status, body: asked.body as unknown }).toEqual({
          path,
          status: 404,
          body: never.body as unknown,
        });
      }
      const upload = await browser
        .post(`/api/copies/${sure(crocks.get(kind)).copy}/files`)
        .query({ name: 'x.txt' })
        .set('Content-Type', 'application/octet-stream')
        .send(Buffer.from('x'));
      expect(upload.status).toBe(404);
    },
  );

  it.each(kinds)(
    'does not tell, in a member’s own %s, that a thing of another group exists',
    async (kind) => {
      const own = {
        ...sure(crocks.get(kind)),
        copy: await copyOf(student('amina'), given.course.id, `Crock’s ${kind}`),
      };
      for (const { method, path, body } of sure(inside[kind])(own).filter((ask) =>
        ask.path.includes(own.thing),
      )) {
        const asked = await student('amina')[method](path).send(body);
        const never = await student('amina')[method](path.replace(own.thing, unknownId)).send(body);
        expect({
          path,
          status: asked.status,
          body: JSON.stringify(asked.body).replaceAll(own.thing, ''),
        }).toEqual({
          path,
          status: never.status,
          body: JSON.stringify(never.body).replaceAll(unknownId, ''),
        });
      }
    },
  );

  it('does not tell that an id is taken by another group’s post or page', async () => {
    const taken = sure(crocks.get('discussion')).thing;
    const talk = await copyOf(student('amina'), given.course.id, 'Crock’s discussion');
    const refused = await student('amina')
      .post(`/api/copies/${talk}/posts`)
      .send({ id: taken, parentId: null, text: aText('mine') })
      .expect(422);
    expect(JSON.stringify(refused.body)).not.toContain('Only for Crock');
    const wiki = await copyOf(student('amina'), given.course.id, 'Crock’s wiki');
    await student('amina')
      .post(`/api/copies/${wiki}/wiki/pages`)
      .send({ id: sure(crocks.get('wiki')).thing, title: 'Mine' })
      .expect(422);
  });

  it('marks nothing as seen that is not the asker’s to see', async () => {
    const talk = await copyOf(student('amina'), given.course.id, 'Crock’s discussion');
    await student('amina')
      .post(`/api/copies/${talk}/seen`)
      .send({ what: 'items', items: [{ id: sure(crocks.get('discussion')).thing, version: 1 }] })
      .expect(200, { unread: 0 });
    const rows = await server.app
      .get(DataSource)
      .query<unknown[]>(`SELECT 1 FROM "seen" WHERE "subjectId" = $1 AND "enrolmentId" = $2`, [
        sure(crocks.get('discussion')).thing,
        sure(given.students.get('amina')).enrolmentId,
      ]);
    expect(rows).toEqual([]);
  });

  it('asks everyone who is signed out to sign in, whether or not the id exists', async () => {
    for (const kind of kinds) {
      for (const { method, path, body } of [...all(kind, sure(crocks.get(kind))), ...all(kind, unknown)]) {
        const answer = await server.browser()[method](path).send(body);
        expect({ path, status: answer.status }).toEqual({ path, status: 401 });
      }
    }
  });

  it('answers one kind’s addresses for another kind’s copy as for none', async () => {
    for (const kind of kinds) {
      for (const other of kinds.filter((each) => inside[each] !== inside[kind])) {
        const { copy, thing } = sure(crocks.get(kind));
        for (const { method, path, body } of sure(inside[other])({ ...unknown, copy, thing })) {
          const asked = await student('noor')[method](path).send(body);
          expect({ kind, path, status: asked.status }).toEqual({ kind, path, status: 404 });
        }
      }
    }
  });

  it('shows each student their own room and nothing of the others', async () => {
    const { rooms } = (await student('amina').get(`/api/courses/${given.course.id}/rooms`).expect(200))
      .body as RoomList;
    expect(rooms.map((room) => room.group.name)).toEqual(['Carboy']);
    expect(JSON.stringify(rooms)).not.toMatch(/Noor|Only for/);
    expect((await student('nino').get(`/api/courses/${given.course.id}/rooms`).expect(200)).body).toEqual({
      rooms: [],
      common: [],
      locked: [],
    });
  });

  it('counts for a student only what is theirs', async () => {
    const figures = async (name: string) =>
      (await student(name).get(`/api/courses/${given.course.id}/figures`).expect(200)).body as object;
    expect(await figures('nino')).toEqual({ kind: 'student', due: 0, rooms: 0, unread: 0, newMarks: 0 });
    expect(await figures('amina')).toEqual({ kind: 'student', due: 4, rooms: 1, unread: 4, newMarks: 0 }); // the discussion asks for nothing; notice, event, resource and call are new
  });
});
