import type { BoardView } from '@jigsaw/contract/placing';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { FoldedGradebook, Gradebook } from '@jigsaw/contract/gradebook';
import { unfoldGradebook } from '@jigsaw/contract/gradebook';
import type { WorkView } from '@jigsaw/contract/handin';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { ActivityDraft, ActivityView, ReleaseRequest, AttachedFile } from '@jigsaw/contract/release';
import type { RoomItem, RoomLines, RoomList, RoomView } from '@jigsaw/contract/rooms';
import type { CourseView } from '@jigsaw/contract/course';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { RosterView } from '@jigsaw/contract/roster';
import type { EnrolmentId } from '@jigsaw/core/ids';
import type { Role } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import type { Browser, TestServer } from './testServer.js';
import { password } from './testServer.js';
import { wholeSet } from '@jigsaw/core/release';

export interface CourseForTests {
  readonly course: CourseView;
  readonly instructor: Browser;
  /** By first name: noor, jorge, amina, … */
  readonly students: ReadonlyMap<string, { browser: Browser; enrolmentId: EnrolmentId }>;
  readonly set: GroupSetView;
  readonly board: BoardView;
}

const names = ['noor', 'jorge', 'amina', 'kofi', 'nino', 'emre', 'piers', 'yara'];
export const base64 = (text: string | Buffer) => Buffer.from(text).toString('base64');

/** A course with students who can sign in, two to a group; the last one stays unplaced.
 * @param school ends all addresses: two courses of one school have the same people. */
export async function aCourse(
  server: TestServer,
  {
    students = 5,
    groups = 2,
    email,
    school = 'quillmere.example',
  }: { students?: number; groups?: number; email?: string; school?: string } = {},
): Promise<CourseForTests> {
  const instructor = await server.instructor(email);
  const course = (
    await instructor
      .post('/api/courses')
      .send({
        code: 'FER 220',
        title: 'Applied Fermentation',
        term: 'Autumn 2026',
        timeZone: 'Europe/Lisbon',
      })
      .expect(200)
  ).body as CourseView;
  const chosen = names.slice(0, students);
  await importPaste(instructor, course.id, chosen.map((name) => `${name}@${school}`).join('\n'));
  const roster = (await instructor.get(`/api/courses/${course.id}/roster`).expect(200)).body as RosterView;
  const { links } = (await instructor.post(`/api/courses/${course.id}/roster/sign-in-links`).expect(200))
    .body as SignInLinks;

  const browsers = new Map<string, { browser: Browser; enrolmentId: EnrolmentId }>();
  for (const name of chosen) {
    const address = `${name}@${school}`;
    const browser = server.browser();
    const link = links.find((each) => each.email === address);
    if (link)
      await browser
        .post('/api/session/password')
        .send({ token: link.url.split('#')[1], password })
        .expect(200);
    else await browser.post('/api/session').send({ email: address, password }).expect(200);
    browsers.set(name, {
      browser,
      enrolmentId: sure(roster.entries.find((entry) => entry.email === address)).enrolmentId,
    });
  }

  const set = (
    await instructor
      .post(`/api/courses/${course.id}/sets`)
      .send({
        name: 'Bench teams',
        shape: { by: 'count', groups },
        capacity: 2,
        pattern: 'Bench {n}',
        names: ['Crock', 'Carboy'],
      })
      .expect(200)
  ).body as GroupSetView;
  const empty = (await instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView;
  const moves = chosen.slice(0, -1).flatMap((name, at) => {
    const group = empty.groups[Math.floor(at / 2)];
    return group ? [{ student: sure(browsers.get(name)).enrolmentId, from: null, to: group.id }] : [];
  });
  await instructor.post(`/api/sets/${set.id}/place`).send({ moves }).expect(200);
  const board = (await instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView;
  return { course, instructor, students: browsers, set, board };
}

/** A second set, of Panel 1 and Panel 2, with students placed by name: Nino, who is in no bench team, and Noor, who is in two groups then. */
export async function aSecondSet({
  course,
  instructor,
  students,
}: CourseForTests): Promise<{ set: GroupSetView; groups: BoardView['groups'] }> {
  const set = (
    await instructor
      .post(`/api/courses/${course.id}/sets`)
      .send({
        name: 'Panels',
        shape: { by: 'count', groups: 2 },
        capacity: null,
        pattern: 'Panel {n}',
        names: [],
      })
      .expect(200)
  ).body as GroupSetView;
  const { groups } = (await instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView;
  const moves = ['nino', 'noor'].map((name, at) => ({
    student: sure(students.get(name)).enrolmentId,
    from: null,
    to: sure(groups[at]).id,
  }));
  await instructor.post(`/api/sets/${set.id}/place`).send({ moves }).expect(200);
  return { set, groups };
}

/** Someone more in the course, with a browser of theirs. */
export async function aMember(
  server: TestServer,
  { course, instructor }: CourseForTests,
  name: string,
  role: Role,
): Promise<Browser> {
  const email = `${name}@quillmere.example`;
  await importPaste(instructor, course.id, email, role);
  const { links } = (await instructor.post(`/api/courses/${course.id}/roster/sign-in-links`).expect(200))
    .body as SignInLinks;
  const browser = server.browser();
  await browser
    .post('/api/session/password')
    .send({ token: sure(links.find((link) => link.email === email)).url.split('#')[1], password })
    .expect(200);
  return browser;
}

/** An assistant leads the first group, and assistants see no work but that of theirs. */
export async function crockIsLedBy(
  { course, instructor, set, board }: CourseForTests,
  name: string,
): Promise<void> {
  const { staff } = (await instructor.get(`/api/sets/${set.id}/board`).expect(200)).body as BoardView;
  const { enrolmentId } = sure(staff.find((each) => each.name === name));
  await instructor
    .put(`/api/sets/${set.id}/leads`)
    .send({ leads: [{ groupId: sure(board.groups[0]).id, enrolmentIds: [enrolmentId] }] })
    .expect(200);
  await instructor.put(`/api/courses/${course.id}/assistants`).send({ assistantsSee: 'theirs' }).expect(200);
}

export async function importPaste(
  instructor: Browser,
  courseId: string,
  text: string,
  role: Role = 'student',
): Promise<void> {
  const source = { kind: 'paste', text };
  const preview = (
    await instructor
      .post(`/api/courses/${courseId}/roster/preview`)
      .send({ source, role, meanings: null })
      .expect(200)
  ).body as ImportPreview;
  await instructor
    .post(`/api/courses/${courseId}/roster/import`)
    .send({ source, role, meanings: ['email', 'name'], leaveOutLines: [], fingerprint: preview.fingerprint })
    .expect(200);
}

/** The gradebook as its instructor sees it. */
export const gradebookOf = async ({ instructor, course }: CourseForTests): Promise<Gradebook> =>
  unfoldGradebook(
    (await instructor.get(`/api/courses/${course.id}/gradebook`).expect(200)).body as FoldedGradebook,
  );

export const aText = (text: string) => ({
  type: 'doc' as const,
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});

export const anAssignment = (more: Partial<ActivityDraft> = {}): ActivityDraft => ({
  kind: 'assignment',
  title: 'Ferment report',
  brief: aText('Write what you saw.'),
  points: '40',
  rubric: null,
  schedule: { opens: null, due: '2026-11-12T17:00:00.000Z', closes: null },
  latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
  settings: {},
  ...more,
});

/** Something that asks nothing of anyone: without points or dates. */
export const toRead = (kind: string, more: Partial<ActivityDraft> = {}): Partial<ActivityDraft> => ({
  kind,
  points: null,
  schedule: { opens: null, due: null, closes: null },
  settings: {},
  ...more,
});

/** A released activity, to the whole set with a copy each unless `how` says otherwise. */
export async function released(
  { instructor, course, set }: CourseForTests,
  more: Partial<ActivityDraft> = {},
  how: Partial<ReleaseRequest> = {},
): Promise<ActivityView> {
  const draft = (
    await instructor.post(`/api/courses/${course.id}/activities`).send(anAssignment(more)).expect(200)
  ).body as ActivityView;
  const request = {
    to: wholeSet(set.id),
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt: null,
    version: draft.version,
    ...how,
  };
  return (await instructor.post(`/api/activities/${draft.id}/release`).send(request).expect(200))
    .body as ActivityView;
}

/** The rooms that someone sees into: their own, and for staff those of all groups. */
async function roomsOf(browser: Browser, courseId: string): Promise<Pick<RoomList, 'rooms' | 'common'>> {
  const own = (await browser.get(`/api/courses/${courseId}/rooms`).expect(200)).body as RoomList;
  const all = await browser.get(`/api/courses/${courseId}/room-lines`);
  if (all.status !== 200) return own;
  const { lines, common } = all.body as RoomLines;
  const rooms: RoomView[] = [];
  for (const { group } of lines)
    rooms.push((await browser.get(`/api/groups/${group.id}/room`).expect(200)).body as RoomView);
  return { rooms, common };
}

/** What someone's rooms say of one activity: a student's own, for staff the first group's. */
export async function itemOf(browser: Browser, courseId: string, title: string): Promise<RoomItem> {
  const { rooms, common } = await roomsOf(browser, courseId);
  const item = [...rooms.flatMap((room) => room.items), ...common].find((each) => each.title === title);
  if (!item) throw new Error(`no copy of ${title} in these rooms`);
  return item;
}

/** The id of the copy that this student's group has of an activity. */
export const copyOf = async (browser: Browser, courseId: string, title = 'Ferment report'): Promise<string> =>
  (await itemOf(browser, courseId, title)).copyId;

export async function addFile(
  browser: Browser,
  copyId: string,
  name: string,
  bytes: Buffer,
): Promise<WorkView> {
  const answer = await browser
    .post(`/api/copies/${copyId}/files`)
    .query({ name, type: 'text/plain' })
    .set('Content-Type', 'application/octet-stream')
    .send(bytes)
    .expect(200);
  return answer.body as WorkView;
}

/** A marking sheet on which nothing is written yet. */
/** Bytes on their way to an activity. */
export const attach = (by: Browser, activityId: string, name: string, bytes: Buffer, type = 'text/plain') =>
  by
    .post(`/api/activities/${activityId}/files`)
    .query({ name, type })
    .set('Content-Type', 'application/octet-stream')
    .send(bytes);

/** A new version of a file that a copy has as its own. */
export const putOwn = (
  by: Browser,
  copyId: string,
  fileId: string,
  newest: number,
  content: string,
  name = 'log.csv',
) =>
  by
    .post(`/api/copies/${copyId}/own-files/${fileId}/versions`)
    .query({ name, type: 'text/csv', newest })
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(content));

/** An assignment that was released with a file.
 * @param isPerGroup each group has its own of it, and may change it. */
export async function attachedTo(
  given: CourseForTests,
  name: string,
  content: string,
  { isPerGroup = false, title = anAssignment().title }: { isPerGroup?: boolean; title?: string } = {},
): Promise<{ readonly live: ActivityView; readonly fileId: string }> {
  const { instructor, course, set } = given;
  const path = `/api/courses/${course.id}/activities`;
  const written = anAssignment({ title });
  const draft = (await instructor.post(path).send(written).expect(200)).body as ActivityView;
  const file = (await attach(instructor, draft.id, name, Buffer.from(content)).expect(200))
    .body as AttachedFile;
  const edited = (
    await instructor
      .put(`/api/activities/${draft.id}`)
      .send({ ...written, files: [{ ...file, isPerGroup }], version: draft.version })
      .expect(200)
  ).body as ActivityView;
  const how = {
    to: wholeSet(set.id),
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt: null,
    version: edited.version,
  };
  const live = (await instructor.post(`/api/activities/${draft.id}/release`).send(how).expect(200)).body as ActivityView; // prettier-ignore
  return { live, fileId: file.id };
}

export const aSheet = {
  typedMark: null,
  overrideReason: '',
  picks: {},
  feedback: '',
  adjustments: [],
  version: 0,
};

/** A file on the shelf of a group. */
export const putOnShelf = (by: Browser, groupId: string, name: string, content: string, path = 'shelf') =>
  by
    .post(`/api/groups/${groupId}/${path}`)
    .query({ name, type: 'text/plain' })
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(content));
