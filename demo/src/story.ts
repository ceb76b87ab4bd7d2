import type { BoardView, GroupSetView } from '@jigsaw/contract/groups';
import type { RoomList } from '@jigsaw/contract/handin';
import type { SignInLinks } from '@jigsaw/contract/identity';
import type { MarkView } from '@jigsaw/contract/marks';
import type { ActivityView } from '@jigsaw/contract/release';
import type { CourseView, ImportPreview, RosterView } from '@jigsaw/contract/roster';
import { Client } from './client.js';
import type { MadeStudent, Vessel } from './people.js';
import { addressOf, benches, demoPassword, latecomers, moved, namesake, oneWord, staff, vessels } from './people.js';
import { briefs, parts, readingsCsv } from './texts.js';
import type { StoryClock } from './storyClock.js';
import { timeZone } from './storyClock.js';

const latePolicy = { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 };

/** Half a term of Applied Fermentation, told through the public API from its first day up to today. */
export async function tellStory(base: string, clock: StoryClock): Promise<void> {
  const instructor = new Client(base, { email: staff.instructor.email, password: demoPassword });
  clock.weeksAgo(7, 'Mon 09:00');
  const course = await instructor.post<CourseView>('courses', { code: 'FER 220', title: 'Applied Fermentation', term: clock.term(), timeZone });

  const placed = vessels.flatMap((vessel) => benches[vessel]);
  const class1 = [...placed, moved, oneWord, namesake];
  const emailOf = addresses([...class1, ...latecomers]);
  await bringIn(instructor, course.id, rosterCsv(class1, emailOf, 1), 'student', 'fer220-week1.csv');
  await bringInPaste(instructor, course.id, staff.assistants.map((each) => `${each.name} <${each.email}>`).join('\n'), 'assistant');
  await bringInPaste(instructor, course.id, `${staff.observer.name} <${staff.observer.email}>`, 'observer');
  const people = new Browsers(base);
  await people.choosePasswords(instructor, course.id);

  clock.weeksAgo(7, 'Mon 10:00');
  const labs = await makeSet(instructor, course.id, 'Lab sections', { by: 'count', groups: 2 }, null, ['Tuesday lab', 'Thursday lab']);
  await place(instructor, labs.id, course.id, new Map(class1.map((student) => [emailOf(student), student.section])));

  clock.weeksAgo(7, 'Mon 10:40');
  const teams = await makeSet(instructor, course.id, 'Bench teams', { by: 'count', groups: 12 }, 4, [...vessels]);
  const seats = new Map<string, string>();
  for (const vessel of vessels) for (const student of benches[vessel]) seats.set(emailOf(student), vessel);
  // Ingrid begins in Crock, in the place that Mireille takes when she moves.
  const mireille = emailOf(benches.Crock[3]!);
  seats.delete(mireille);
  seats.set(emailOf(moved), 'Crock');
  seats.set(emailOf(oneWord), 'Cask');
  seats.set(emailOf(namesake), 'Demijohn');
  seats.set(mireille, 'Amphora');
  await place(instructor, teams.id, course.id, seats);

  clock.weeksAgo(6, 'Tue 09:00');
  const salt = await write(instructor, course.id, 'Salt trial', briefs.salt, '20', { due: clock.at(5, 'Fri 17:00') });
  await release(instructor, salt, teams);
  for (const [at, vessel] of vessels.entries()) {
    const members = seated(seats, vessel);
    clock.weeksAgo(5, at % 5 === 3 ? 'Fri 19:20' : `Thu ${10 + at}:1${at % 10}`);
    await handInFor(people, course.id, members, 'Salt trial', vessel, [0, 2]);
  }
  clock.weeksAgo(4, 'Wed 14:00');
  for (const [at, vessel] of vessels.entries())
    await mark(instructor, course.id, salt, vessel, String(13 + ((at * 5) % 7)), 'Clear table. Say what would count against the salt you chose.', {
      release: true,
    });

  clock.weeksAgo(4, 'Mon 09:30');
  const report = await write(instructor, course.id, 'Ferment report', briefs.report, '40', { due: clock.at(1, 'Fri 17:00') });
  await release(instructor, report, teams);

  clock.weeksAgo(2, 'Thu 14:12');
  await swapMembers(instructor, teams.id, course.id, emailOf(moved), 'Amphora', mireille, 'Crock');
  seats.set(emailOf(moved), 'Amphora');
  seats.set(mireille, 'Crock');
  clock.weeksAgo(2, 'Fri 11:00');
  await bringIn(instructor, course.id, rosterCsv(latecomers, emailOf, 60), 'student', 'fer220-late.csv');
  await people.choosePasswords(instructor, course.id);
  await place(instructor, labs.id, course.id, new Map(latecomers.map((student) => [emailOf(student), student.section])));
  const mateus = emailOf(benches.Flask[3]!);
  await place(instructor, teams.id, course.id, new Map([[mateus, null]]));
  seats.delete(mateus);

  // Onggi has written but not handed in; Firkin is a day late; Barrel is three hours late.
  for (const [at, vessel] of vessels.entries()) {
    const members = seated(seats, vessel);
    if (vessel === 'Firkin') clock.weeksAgo(1, 'Sat 21:05');
    else if (vessel === 'Barrel') clock.weeksAgo(1, 'Fri 19:40');
    else clock.weeksAgo(1, `${at % 2 ? 'Thu' : 'Fri'} ${String(9 + (at % 7)).padStart(2, '0')}:2${at % 10}`);
    await handInFor(people, course.id, members, 'Ferment report', vessel, vessel === 'Tun' ? [0, 1, 2] : [0, 1, 2, 3], vessel !== 'Onggi');
  }
  clock.daysAgo(2, '15:30');
  const good = 'The control earns its place: you say what it rules out before you show it. Next time test the rival cause too.';
  await mark(instructor, course.id, report, 'Carboy', '33', good, { release: true });
  await mark(instructor, course.id, report, 'Demijohn', '36', good, { release: true });
  await mark(instructor, course.id, report, 'Tun', '30', 'Sound method. The panel is tied to the figures well.', {
    release: true,
    adjust: { name: 'Fergus MacAllan', by: '-6', reason: 'Agreed with the bench: no part written and two weighings missed' },
  });
  await mark(instructor, course.id, report, 'Stoneware', '30', 'Good curve. Figure 2 needs its unit.', { release: false });
  await mark(instructor, course.id, report, 'Kvevri', '28.5', 'Interpretation stops at the first cause that fits.', { release: false });

  clock.daysAgo(5, '09:00');
  const kinetics = await write(instructor, course.id, 'Brine kinetics problem sheet', briefs.kinetics, '30', { due: clock.inDays(2, '17:00') });
  await release(instructor, kinetics, teams);
  for (const vessel of ['Crock', 'Carboy', 'Kvevri', 'Cask'] as const) {
    clock.daysAgo(1, '20:10');
    await handInFor(
      people,
      course.id,
      seated(seats, vessel),
      'Brine kinetics problem sheet',
      vessel,
      vessel === 'Crock' ? [0, 1] : [0, 1, 2],
      vessel === 'Carboy',
    );
  }

  clock.daysAgo(1, '16:00');
  const tasting = await write(instructor, course.id, 'Tasting day card', briefs.tasting, '10', { due: clock.inDays(9, '20:00') });
  await release(instructor, tasting, teams, clock.inDays(3, '08:00'));
  await write(instructor, course.id, 'Shelf life memo', briefs.shelf, '15', {});
}

/** One signed-in browser a person. */
class Browsers {
  private readonly byAddress = new Map<string, Client>();

  constructor(private readonly base: string) {}

  async choosePasswords(instructor: Client, courseId: string): Promise<void> {
    const { links } = await instructor.post<SignInLinks>(`courses/${courseId}/roster/sign-in-links`);
    for (const link of links) {
      const client = new Client(this.base, { email: link.email, password: demoPassword });
      await client.post('session/password', { token: link.url.split('#')[1], password: demoPassword });
      this.byAddress.set(link.email, client);
    }
  }

  of(email: string): Client {
    const client = this.byAddress.get(email);
    if (!client) throw new Error(`${email} has chosen no password`);
    return client;
  }
}

function addresses(students: readonly MadeStudent[]): (student: MadeStudent) => string {
  const taken = new Set<string>();
  const byStudent = new Map<MadeStudent, string>();
  for (const student of students) {
    const first = addressOf(student);
    const address = taken.has(first) ? addressOf(student, true) : first;
    taken.add(address);
    byStudent.set(student, address);
  }
  return (student) => byStudent.get(student)!;
}

function rosterCsv(students: readonly MadeStudent[], emailOf: (student: MadeStudent) => string, from: number): string {
  const rows = students.map((student, at) =>
    [
      `fe-0${400 + from + at * 7}`,
      student.name,
      student.family,
      emailOf(student),
      student.reading,
      student.experience,
      student.timetable,
      student.kitchen,
      student.language,
    ].join(','),
  );
  return `Number,Name,Family name,Email,Latin name,Lab experience,Timetable,Kitchen access,First language\n${rows.join('\n')}\n`;
}

async function bringIn(instructor: Client, courseId: string, csv: string, role: string, fileName: string): Promise<void> {
  await importFrom(instructor, courseId, { kind: 'file', fileName, contentBase64: Buffer.from(csv).toString('base64') }, role);
}

async function bringInPaste(instructor: Client, courseId: string, text: string, role: string): Promise<void> {
  await importFrom(instructor, courseId, { kind: 'paste', text }, role);
}

async function importFrom(instructor: Client, courseId: string, source: object, role: string): Promise<void> {
  const preview = await instructor.post<ImportPreview>(`courses/${courseId}/roster/preview`, { source, role, meanings: null });
  await instructor.post(`courses/${courseId}/roster/import`, {
    source,
    role,
    meanings: preview.columns.map((column) => column.meaning),
    leaveOutLines: [],
    fingerprint: preview.fingerprint,
  });
}

async function makeSet(instructor: Client, courseId: string, name: string, shape: object, capacity: number | null, names: string[]): Promise<GroupSetView> {
  return instructor.post<GroupSetView>(`courses/${courseId}/sets`, { name, shape, capacity, pattern: `${name} {n}`, names });
}

/** Seats people by address; null takes them out. */
async function place(instructor: Client, setId: string, courseId: string, seats: ReadonlyMap<string, string | null>): Promise<void> {
  const board = await instructor.get<BoardView>(`sets/${setId}/board`);
  const roster = await instructor.get<RosterView>(`courses/${courseId}/roster`);
  const moves = [...seats].map(([email, groupName]) => {
    const student = roster.entries.find((entry) => entry.email === email)!.enrolmentId;
    const from = board.students.find((each) => each.enrolmentId === student)!.groupId;
    return { student, from, to: groupName === null ? null : board.groups.find((group) => group.name === groupName)!.id };
  });
  await instructor.post(`sets/${setId}/place`, { moves });
}

const swapMembers = (instructor: Client, setId: string, courseId: string, one: string, oneTo: string, other: string, otherTo: string) =>
  place(
    instructor,
    setId,
    courseId,
    new Map([
      [one, oneTo],
      [other, otherTo],
    ]),
  );

const seated = (seats: ReadonlyMap<string, string>, vessel: Vessel) => [...seats].flatMap(([email, at]) => (at === vessel ? [email] : []));

async function write(
  instructor: Client,
  courseId: string,
  title: string,
  brief: object,
  points: string,
  { due = null }: { due?: string | null },
): Promise<ActivityView> {
  return instructor.post<ActivityView>(`courses/${courseId}/activities`, { title, brief, points, schedule: { opens: null, due, closes: null }, latePolicy });
}

async function release(instructor: Client, activity: ActivityView, set: GroupSetView, goesLiveAt: string | null = null): Promise<void> {
  const released = await instructor.post<ActivityView>(`activities/${activity.id}/release`, { setId: set.id, goesLiveAt, version: activity.version });
  Object.assign(activity, released);
}

/** Some members write, one adds the readings, and the first hands in. `writers`: who of them writes a part. */
async function handInFor(
  people: Browsers,
  courseId: string,
  members: readonly string[],
  title: string,
  vessel: Vessel,
  writers: readonly number[],
  isHandedIn = true,
): Promise<void> {
  for (const [at, email] of members.entries()) {
    if (at > 0 && !writers.includes(at)) continue;
    const client = people.of(email);
    const { rooms } = await client.get<RoomList>(`courses/${courseId}/rooms`);
    const { copyId } = rooms.flatMap((room) => room.items).find((item) => item.title === title)!;
    if (writers.includes(at)) await client.put(`copies/${copyId}/part`, { text: parts[at % parts.length]!(vessel), version: 0 });
    if (at === 1 || members.length === 1)
      await client.upload(`copies/${copyId}/files`, `${vessel.toLowerCase()}-readings.csv`, 'text/csv', readingsCsv(vessel));
  }
  if (!isHandedIn) return;
  const first = people.of(members[0]!);
  const { rooms } = await first.get<RoomList>(`courses/${courseId}/rooms`);
  const { copyId } = rooms.flatMap((room) => room.items).find((item) => item.title === title)!;
  await first.post(`copies/${copyId}/hand-in`, { attempt: 1 });
}

interface Marking {
  readonly release: boolean;
  readonly adjust?: { readonly name: string; readonly by: string; readonly reason: string };
}

async function mark(
  instructor: Client,
  courseId: string,
  activity: ActivityView,
  vessel: Vessel,
  groupMark: string,
  feedback: string,
  { release: isReleased, adjust }: Marking,
): Promise<void> {
  const { rooms } = await instructor.get<RoomList>(`courses/${courseId}/rooms`);
  const { copyId } = rooms.find((room) => room.group.name === vessel)!.items.find((item) => item.title === activity.title)!;
  const sheet = await instructor.get<MarkView>(`copies/${copyId}/mark`);
  const member = adjust && sheet.members.find((each) => each.member.name === adjust.name);
  const adjustments =
    adjust && member ? [{ enrolmentId: member.member.enrolmentId, adjustment: { kind: 'adjusted', by: adjust.by, reason: adjust.reason } }] : [];
  const saved = await instructor.put<MarkView>(`copies/${copyId}/mark`, { groupMark, feedback, adjustments, version: sheet.version });
  if (isReleased) await instructor.post(`copies/${copyId}/mark/release`, { version: saved.version });
}
