import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { NewCalendarAddress } from '@jigsaw/contract/calendar';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { Viewer } from '@jigsaw/core/course';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Access, Extension, ReleaseFacts } from '@jigsaw/core/release';
import { atLeast, decide } from '@jigsaw/core/release';
import { aCourse, aMember, aText, crockIsLedBy } from '../test/aCourse.js';
import { follow } from '../test/following.js';
import type { Following } from '../test/following.js';
import type { MadeCourse, MadeOne } from '../test/madeCourse.js';
import { aMadeCourse, aPlan } from '../test/madeCourse.js';
import { marker, tellAll } from '../test/marker.js';
import { practising } from '../test/practising.js';
import { setActs } from '../test/setActs.js';
import type { Browser, TestServer } from '../test/testServer.js';
import { startTestServer } from '../test/testServer.js';

/** Courses by chance, and everyone in them: what each of them meets at any address, in their calendar and among the changes that they hear of is what the decision
 * says of the plan by which the course was made. The statements that look things up know less than the decision or the same, and never more. */
let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface Someone {
  readonly name: string;
  readonly browser: Browser;
  /** null: not in this course. */
  readonly viewer: Viewer | null;
  /** In copies of their own: they read what is released, and nothing of anyone's. */
  readonly practises?: boolean;
  readonly calendar: string;
}

for (const [number, plan] of fc.sample(aPlan, { numRuns: 2, seed: 429 }).entries())
  describe(`course ${number + 1}`, () => {
    let made: MadeCourse;
    const inGroups = new Map<string, number[]>([['noor', [0, 3]], ['jorge', [0]], ['amina', [1]], ['kofi', [1]], ['nino', [2]]]); // prettier-ignore
    const staff = new Map<string, Browser>();
    const strangers = new Map<string, Browser>();
    const calendars = new Map<string, string>();

    beforeAll(async () => {
      const school = `${number}.example`;
      const given = await aCourse(server, { email: `ilse@${school}`, school });
      staff.set('ilse', given.instructor);
      for (const name of ['tomas', 'bea']) staff.set(name, await aMember(server, given, `${name}${number}`, 'assistant')); // prettier-ignore
      staff.set('olga', await aMember(server, given, `olga${number}`, 'observer'));
      if (!plan.isOpen) await crockIsLedBy(given, `Tomas${number}`);
      strangers.set('rui', await server.instructor(`rui@${school}`));
      strangers.set('signed out', server.browser());
      made = await aMadeCourse(server, given, plan);
      await given.instructor.post(`/api/courses/${given.course.id}/practice`).send({ groupId: sure(made.groups[0]).groupId }).expect(200); // prettier-ignore
      for (const [name, { browser }] of given.students) calendars.set(name, await calendarOf(browser));
      for (const [name, browser] of staff) calendars.set(name, await calendarOf(browser));
    });
    const idOf = (name: string) => sure(made.given.students.get(name)).enrolmentId;
    const everyone = (hasLeft: string): Someone[] => {
      const courseId = made.given.course.id;
      const is = (role: Viewer['role'], more: Partial<Viewer> = {}): Viewer => ({ courseId, enrolmentId: randomUUID() as EnrolmentId, role, hasLeft: false, groups: [], leads: [], seesOnlyLed: false, ...more }); // prettier-ignore
      const groupsOf = (name: string) => sure(inGroups.get(name)).map((at) => sure(made.groups[at]));
      const assists = (leads: Viewer['leads']) => is('assistant', { leads: plan.isOpen ? [] : leads, seesOnlyLed: !plan.isOpen }); // prettier-ignore
      const role: Record<string, Viewer> = { ilse: is('instructor'), tomas: assists([sure(made.groups[0]).groupId]), bea: assists([]), olga: is('observer') }; // prettier-ignore
      const calendar = (name: string) => calendars.get(name) ?? '';
      return [
        ...[...made.given.students].map(([name, { browser, enrolmentId }]) => ({
          name,
          browser,
          viewer: is('student', { enrolmentId, groups: groupsOf(name), hasLeft: name === hasLeft }),
          calendar: calendar(name),
        })),
        ...[...staff].map(([name, browser]) => ({ name, browser, viewer: sure(role[name]), calendar: calendar(name) })), // prettier-ignore
        { name: 'practice', browser: practising(made.given.instructor, sure(made.groups[0]).groupId), viewer: null, practises: true, calendar: '' }, // prettier-ignore
        ...[...strangers].map(([name, browser]) => ({ name, browser, viewer: null, calendar: '' })),
      ];
    };

    it('shows each of them what is theirs and nothing else when it begins', async () => {
      await compare(made, everyone(''));
    }, 300_000);

    it('when things open and go live, and someone is in no group any more', async () => {
      server.clock.pass({ hours: 25 });
      await move(null);
      await compare(made, everyone(''));
    }, 300_000);

    it('when things are closed, someone came to another group and someone has left', async () => {
      server.clock.pass({ hours: 20 });
      await move(plan.moves === 'amina' ? 0 : 1);
      const dropped = { act: 'drop', enrolmentIds: [idOf(plan.drops)] };
      await made.given.instructor.post(`/api/courses/${made.given.course.id}/roster/changes`).send(dropped).expect(200); // prettier-ignore
      await compare(made, everyone(plan.drops));
    }, 300_000);

    /** Out of their bench team, or into one. */
    async function move(to: 0 | 1 | null): Promise<void> {
      const isBench = (at: number) => at < 2;
      const own = sure(inGroups.get(plan.moves));
      const from = own.find(isBench);
      const idAt = (at: number | null | undefined) => (at === null || at === undefined ? null : sure(made.groups[at]).groupId); // prettier-ignore
      const moves = [{ student: idOf(plan.moves), from: idAt(from), to: idAt(to) }];
      await setActs(() => made.given)
        .place(moves)
        .expect(200);
      inGroups.set(plan.moves, [...own.filter((at) => !isBench(at)), ...(to === null ? [] : [to])]);
    }
  });

it('met every answer that students can be given', () => {
  const hasAll = ['own', 'read-along', 'common'].flatMap((mode) => ['hidden', 'listed', 'read-only', 'open'].map((access) => `${mode} ${access}`)); // prettier-ignore
  expect([...answers].toSorted()).toEqual([...hasAll, 'another copy of what someone reads'].toSorted());
});
const answers = new Set<string>();

async function compare(made: MadeCourse, people: readonly Someone[]): Promise<void> {
  const wrong: string[] = [];
  const addresses = await addressesOf(made);
  const lines = await Promise.all(
    people
      .filter(({ viewer }) => viewer !== null && !viewer.hasLeft)
      .map(async ({ name, browser }) => [name, await follow(browser, made.given.course.id)] as const),
  );
  for (const someone of people) {
    const access = accessOf(made, someone, people);
    if (someone.viewer?.role === 'student' && !someone.viewer.hasLeft) for (const { made: as, copies } of made.activities) for (const { id } of copies) answers.add(`${as.mode} ${sure(access.get(id))}`); // prettier-ignore
    for (const { id } of allCopies(made)) {
      const { status, body } = await someone.browser.get(`/api/copies/${id}`);
      const found = status === 200 ? (body as CopyHead).access : 'nothing';
      const expected = sure(access.get(id));
      if (found !== (atLeast(expected, 'read-only') ? expected : 'nothing'))
        wrong.push(`${someone.name} has ${found} of ${id}, not ${expected}`);
    }
    const met = new Set<string>();
    const listed = new Map<string, string>();
    const { allowed, forbidden } = wordsFor(made, someone, access);
    for (const address of someone.calendar === '' ? addresses : [...addresses, someone.calendar]) {
      const { status, text = '' } = (await someone.browser.get(address)) as { status: number; text?: string };
      if (status >= 500) wrong.push(`${someone.name} ${address} ${status}`);
      for (const word of forbidden) if (text.includes(word)) wrong.push(`${someone.name} met ${word} at ${address}`); // prettier-ignore
      for (const word of allowed) if (status === 200 && text.includes(word)) met.add(word);
      if (/\/(rooms|copies)$/.test(address)) listed.set(address, text);
    }
    for (const word of allowed) if (!met.has(word)) wrong.push(`${someone.name} did not meet ${word}`);
    wrong.push(...notListed(made, someone, access, listed));
  }
  wrong.push(...(await heardWrongly(made, people, new Map(lines))));
  for (const [, line] of lines) line.stop();
  expect(wrong).toEqual([]);
}

/** Students find all that they may read in a list, too: what is their own in their rooms, and copies of others beside it. */
function notListed(
  made: MadeCourse,
  { name, viewer }: Someone,
  access: ReadonlyMap<string, Access>,
  listed: ReadonlyMap<string, string>,
): string[] {
  if (viewer?.role !== 'student') return [];
  return made.activities.flatMap((activity) =>
    activity.copies.flatMap(({ id, groupId }) => {
      if (!atLeast(sure(access.get(id)), 'read-only')) return [];
      const isOwn = groupId === null || viewer.groups.some((group) => group.groupId === groupId);
      const lists = [`/api/activities/${activity.id}/copies`, ...(isOwn ? [`/api/courses/${viewer.courseId}/rooms`] : [])]; // prettier-ignore
      return lists.flatMap((list) => (listed.get(list)?.includes(id) ? [] : [`${name} does not find ${id} at ${list}`])); // prettier-ignore
    }),
  );
}

const allCopies = (made: MadeCourse) => made.activities.flatMap(({ copies }) => copies);

/** Every address that reads, with everything of the course that its places can stand for. */
async function addressesOf({ given, groups, activities }: MadeCourse): Promise<string[]> {
  const { body } = (await server.browser().get('/api/openapi.json').expect(200)) as { body: { paths: Record<string, object> } }; // prettier-ignore
  const { activities: listed } = (await given.instructor.get(`/api/courses/${given.course.id}/activities`).expect(200)).body as { activities: { id: string; release: { id: string } | null }[] }; // prettier-ignore
  const ids: Record<string, readonly string[]> = {
    courseId: [given.course.id],
    setId: [...new Set(groups.map(({ setId }) => setId))],
    groupId: groups.map(({ groupId }) => groupId),
    activityId: activities.map(({ id }) => id),
    releaseId: listed.flatMap(({ release }) => release?.id ?? []),
    enrolmentId: [...given.students.values()].map(({ enrolmentId }) => enrolmentId),
    unit: ['group'],
    number: ['1'],
  };
  const files = activities.flatMap(({ file }) => file?.id ?? []);
  return Object.entries(body.paths).flatMap(([path, methods]) => {
    if (!('get' in methods) || notWalked.some((part) => path.includes(part))) return [];
    const [, more] = path.split('{copyId}');
    if (more !== undefined)
      return activities.flatMap(({ copies, file }) => copies.flatMap(({ id, pageIds }) => filled(path, { ...ids, copyId: [id], pageId: pageIds, fileId: file ? [file.id] : [] }))); // prettier-ignore
    return filled(path, { ...ids, fileId: files });
  });
}
/** A line that never ends; calendars are read by their own addresses. */
const notWalked = ['/courses/{courseId}/changes', '/calendars/{file}'];

function filled(path: string, ids: Readonly<Record<string, readonly string[]>>): string[] {
  const [place, name = ''] = /\{(\w+)\}/.exec(path) ?? [];
  if (place === undefined) return [path];
  return (ids[name] ?? []).flatMap((id) => filled(path.replace(place, id), ids));
}

/** What the decision says of each copy. */
function accessOf(
  made: MadeCourse,
  { viewer }: Someone,
  people: readonly Someone[],
): ReadonlyMap<string, Access> {
  const at = server.clock.now().getTime();
  return new Map(
    made.activities.flatMap((activity) =>
      activity.copies.map(({ id, groupId }) => {
        const setId = made.groups.find((group) => group.groupId === groupId)?.setId ?? null;
        const copy = { groupId, setId, extension: extensionOf(activity, groupId) };
        return [id, decide(viewer, factsOf(made, activity, people), copy, at).access] as const;
      }),
    ),
  );
}

const extensionOf = ({ moreTime }: MadeOne, of: string | null): Extension | null =>
  moreTime?.of === of ? { due: sure(moreTime).due, closes: null } : null;

function factsOf(
  { given, groups, saved }: MadeCourse,
  one: MadeOne,
  people: readonly Someone[],
): ReleaseFacts {
  const { fate, mode, outsiders } = one.made;
  const isInSaved = ({ viewer }: Someone) =>
    viewer?.enrolmentId === saved.enrolmentId ||
    viewer?.groups.some(({ groupId }) => groupId === saved.groupId);
  const dairy = {
    people: new Map(people.filter(isInSaved).map(({ viewer }) => [sure(viewer).enrolmentId, { kind: 'class' as const }])), // prettier-ignore
    groups: new Map(groups.filter(({ groupId }) => groupId === saved.groupId).map(({ groupId, setId }) => [groupId, setId])), // prettier-ignore
  };
  const ofStudent = [...given.students.values()].find(({ enrolmentId }) => enrolmentId === one.moreTime?.of);
  return {
    courseId: given.course.id,
    state: fate === 'draft' ? { state: 'draft' } : fate === 'scheduled' ? { state: 'scheduled', goesLiveAt: one.goesLiveAt } : { state: fate, since: 0 }, // prettier-ignore
    mode,
    outsiders,
    audience: {
      include: one.include.map((entry) => (entry.kind === 'audience' ? { ...entry, ...dairy } : entry)),
      exclude: one.exclude,
    },
    schedule: one.schedule,
    ownTime: new Map(ofStudent ? [[ofStudent.enrolmentId, sure(extensionOf(one, ofStudent.enrolmentId))]] : []), // prettier-ignore
  };
}

/** The words that someone is to meet, and those that they are not; of words in neither it depends on more than who may read. */
function wordsFor(
  made: MadeCourse,
  { viewer, practises = false }: Someone,
  access: ReadonlyMap<string, Access>,
) {
  const allowed: string[] = [];
  const forbidden: string[] = [];
  const isStaff = viewer !== null && viewer.role !== 'student';
  for (const { made: as, title, brief, file, copies } of made.activities) {
    const accesses = copies.map(({ id }) => sure(access.get(id)));
    const isRead = accesses.some((each) => atLeast(each, 'read-only'));
    const isListed = accesses.includes('listed');
    // What is released, and drafts of theirs, the staff read on pages of their own.
    if ((!isStaff && !practises) || (viewer?.role === 'observer' && as.fate === 'draft')) {
      (isRead || isListed ? allowed : forbidden).push(title);
      (isRead ? allowed : forbidden).push(brief);
      if (file) (isRead ? allowed : forbidden).push(file.content);
    }
    for (const { id, said } of copies) {
      const isTheirs = atLeast(sure(access.get(id)), 'read-only');
      (isTheirs ? allowed : forbidden).push(id);
      if (said === null) continue;
      if (!isTheirs) forbidden.push(said);
      else if (as.kind !== 'assignment') allowed.push(said); // what is not handed in yet is its members' alone
    }
  }
  return { allowed, forbidden };
}

/** Something is said in one discussion after the other, and those hear of it who read where it was said. */
async function heardWrongly(
  made: MadeCourse,
  people: readonly Someone[],
  lines: ReadonlyMap<string, Following>,
): Promise<string[]> {
  const wrong: string[] = [];
  const discussions = made.activities.filter((each) => each.made.kind === 'discussion');
  for (const { id, own } of discussions.flatMap(({ copies }) =>
    copies.map((copy) => ({ ...copy, own: copies })),
  )) {
    // prettier-ignore
    const post = { id: randomUUID(), parentId: null, text: aText('More') };
    const { status } = await made.given.instructor.post(`/api/copies/${id}/posts`).send(post);
    await tellAll(server, made.given.course.id);
    for (const someone of people) {
      const heard = (await lines.get(someone.name)?.until(marker))?.includes('post.added') ?? false;
      const access = accessOf(made, someone, people);
      const isTheirs = atLeast(sure(access.get(id)), 'read-only');
      if (!isTheirs && own.some((other) => atLeast(sure(access.get(other.id)), 'read-only'))) answers.add('another copy of what someone reads'); // prettier-ignore
      if (heard !== (status === 200 && isTheirs)) wrong.push(`${someone.name} ${heard ? 'heard' : 'did not hear'} of ${id}`); // prettier-ignore
    }
  }
  return wrong;
}

/** The path of a calendar of theirs. */
async function calendarOf(browser: Browser): Promise<string> {
  const { body } = await browser.post('/api/calendar-addresses').send({ label: 'Phone' }).expect(200);
  return new URL((body as NewCalendarAddress).url).pathname;
}
