import type { BoardView } from '@jigsaw/contract/placing';
import type { CourseView } from '@jigsaw/contract/course';
import type { RosterView } from '@jigsaw/contract/roster';
import { sure } from '@jigsaw/core/lists';
import { importPeople, importPaste, invite, makeSet } from './importPeople.js';
import { Client } from './client.js';
import { askForPosters, furnishBenches, meetAsExperts } from './groups.js';
import type { MadeStudent, Vessel } from './people.js';
import {
  addressOf,
  benches,
  demoPassword,
  dropout,
  freeTime,
  latecomers,
  moved,
  namesake,
  oneWord,
  staff,
  vessels,
} from './people.js';
import { certificates, handInReports, markCritiques, markReports, readMost } from './marking.js';
import { questionnaires } from './questions.js';
import { benchCalls, noticesAndEvents, thingsToUse, workInReadings } from './toRead.js';
import { writeMessages } from './messages.js';
import { fillShelves } from './shelves.js';
import { noteSome, openTalks, practise, releaseReport, starterLog, tastingCritique } from './scenes.js';
import { arrangeOutline } from './outline.js';
import { choosePanels } from './panels.js';
import type { Stage } from './stage.js';
import { attach, Browsers, copiesOf, mark, release, write } from './stage.js';
import { briefs, parts, readingsCsv } from './texts.js';
import type { School } from './registrar/index.js';
import { asEnrolled, happenSince, listing, sync, teachers } from './sections.js';
import type { StoryClock } from './storyClock.js';
import { timeZone } from './storyClock.js';

/** Half a term of Applied Fermentation, told through the public API from its first day up to today. */
export async function tellStory(base: string, clock: StoryClock, school: School): Promise<void> {
  const instructor = new Client(base, { email: staff.instructor.email, password: demoPassword });
  clock.weeksAgo(7, 'Mon 09:00');
  const course = await instructor.post<CourseView>('courses', {
    code: 'FER 220',
    title: 'Applied Fermentation',
    term: clock.term(),
    timeZone,
  });

  const placed = vessels.flatMap((vessel) => benches[vessel]);
  const class1 = [...placed, moved, oneWord, namesake];
  const firstWeek = [...class1, dropout];
  const emailOf = addresses([...firstWeek, ...latecomers]);
  const numbers = new Map([...numbered(firstWeek, 1), ...numbered(latecomers, 60)]);
  await importPeople(
    instructor,
    course.id,
    rosterCsv(firstWeek, emailOf, numbers),
    'student',
    'fer220-week1.csv',
  );
  await importPaste(
    instructor,
    course.id,
    staff.assistants.map((each) => `${each.name} <${each.email}>`).join('\n'),
    'assistant',
  );
  await importPaste(instructor, course.id, `${staff.observer.name} <${staff.observer.email}>`, 'observer');
  await invite(instructor, course.id);
  const people = new Browsers(base);
  await people.choosePasswords(instructor, course.id);

  clock.weeksAgo(7, 'Mon 10:00');
  const listed = (student: MadeStudent) => asEnrolled(student, emailOf(student), sure(numbers.get(student)));
  school.put({ ...listing, people: [...teachers, ...firstWeek.map(listed)] });
  await sync(instructor, course.id);

  clock.weeksAgo(7, 'Mon 10:40');
  const teams = await makeSet(instructor, course.id, 'Bench teams', { by: 'count', groups: 12 }, 4, [
    ...vessels,
  ]);
  const seats = new Map<string, string>();
  for (const vessel of vessels) for (const student of benches[vessel]) seats.set(emailOf(student), vessel);
  // Ingrid begins in Crock, in the place that Mireille takes when she moves.
  const mireille = emailOf(sure(benches.Crock[3]));
  seats.delete(mireille);
  seats.set(emailOf(moved), 'Crock');
  seats.set(emailOf(oneWord), 'Cask');
  seats.set(emailOf(namesake), 'Demijohn');
  seats.set(mireille, 'Amphora');
  await place(instructor, teams.id, course.id, seats);

  const stage: Stage = {
    instructor,
    people,
    courseId: course.id,
    clock,
    teams,
    seated: (vessel) => seated(seats, vessel),
  };

  clock.weeksAgo(7, 'Tue 09:00');
  await furnishBenches(stage);

  await thingsToUse(stage);
  clock.weeksAgo(6, 'Tue 09:00');
  await release(
    stage,
    await write(stage, {
      kind: 'assignment',
      title: 'Salt trial',
      brief: briefs.salt,
      points: '20',
      due: clock.at(5, 'Fri 17:00'),
    }),
  );
  for (const [at, vessel] of vessels.entries()) {
    clock.weeksAgo(5, at % 5 === 3 ? 'Fri 19:20' : `Thu ${10 + at}:1${at % 10}`);
    await handInFor(stage, 'Salt trial', vessel, [0, 2]);
  }
  clock.weeksAgo(4, 'Mon 08:40');
  school.drop(listing.code, emailOf(dropout));
  await sync(instructor, course.id);

  clock.weeksAgo(4, 'Wed 14:00');
  const trials = await copiesOf(instructor, course.id, 'Salt trial');
  for (const [at, vessel] of vessels.entries()) {
    const feedback = 'Clear table. Say what would count against the salt you chose.';
    await mark(stage, sure(trials.get(vessel)).copyId, 'group', true, {
      typedMark: String(13 + ((at * 5) % 7)),
      feedback,
    });
  }
  await releaseReport(stage);

  clock.weeksAgo(2, 'Thu 14:12');
  await swapMembers(instructor, teams.id, course.id, emailOf(moved), 'Amphora', mireille, 'Crock');
  seats.set(emailOf(moved), 'Amphora');
  seats.set(mireille, 'Crock');
  clock.weeksAgo(2, 'Fri 11:00');
  await importPeople(
    instructor,
    course.id,
    rosterCsv(latecomers, emailOf, numbers),
    'student',
    'fer220-late.csv',
  );
  await invite(instructor, course.id);
  await people.choosePasswords(instructor, course.id);
  for (const student of latecomers) school.enrol(listing.code, listed(student));
  await sync(instructor, course.id);
  const mateus = emailOf(sure(benches.Flask[3]));
  await place(instructor, teams.id, course.id, new Map([[mateus, null]]));
  seats.delete(mateus);

  const everyone = [...class1, ...latecomers];
  await handInReports(stage, (email) => sure(everyone.find((student) => emailOf(student) === email)).name);
  await markReports(stage);
  await openTalks(stage);
  await starterLog(stage);
  await certificates(stage);
  await noticesAndEvents(stage);
  await benchCalls(stage);
  await questionnaires(stage);
  await tastingCritique(stage);

  await choosePanels(stage, everyone.map(emailOf));
  await meetAsExperts(stage);
  await askForPosters(stage);

  clock.daysAgo(5, '09:00');
  const kinetics = {
    kind: 'assignment',
    title: 'Brine kinetics problem sheet',
    brief: briefs.kinetics,
    points: '30',
    due: clock.inDays(2, '17:00'),
  };
  const readings = 'hour,pH,salt %\n0,6.10,2.5\n12,5.42,2.4\n24,4.61,2.4\n48,3.98,2.3\n';
  const sheet = await attach(stage, await write(stage, kinetics), {
    name: 'readings-to-work-with.csv',
    type: 'text/csv',
    content: readings,
    isPerGroup: true,
  });
  await release(stage, sheet);
  await workInReadings(stage, kinetics.title, sheet, readings);
  for (const vessel of ['Crock', 'Carboy', 'Kvevri', 'Cask'] as const) {
    clock.daysAgo(1, '20:10');
    await handInFor(
      stage,
      kinetics.title,
      vessel,
      vessel === 'Crock' ? [0, 1] : [0, 1, 2],
      vessel === 'Carboy',
    );
  }

  clock.daysAgo(1, '16:00');
  const tasting = await write(stage, {
    kind: 'assignment',
    title: 'Tasting day card',
    brief: briefs.tasting,
    points: '10',
    due: clock.inDays(9, '20:00'),
  });
  await release(stage, tasting, { goesLiveAt: clock.inDays(3, '08:00') });
  await write(stage, { kind: 'assignment', title: 'Shelf life memo', brief: briefs.shelf, points: '15' });
  await arrangeOutline(stage);
  await markCritiques(stage);
  await readMost(stage);
  await noteSome(stage);
  await fillShelves(stage);
  await writeMessages(stage);
  await practise(stage, 'Carboy');
  happenSince(school, (student) => emailOf(student));
}

const numbered = (students: readonly MadeStudent[], from: number) =>
  students.map((student, at) => [student, `fe-0${400 + from + at * 7}`] as const);

function addresses(students: readonly MadeStudent[]): (student: MadeStudent) => string {
  const taken = new Set<string>();
  const byStudent = new Map<MadeStudent, string>();
  for (const student of students) {
    const first = addressOf(student);
    const address = taken.has(first) ? addressOf(student, true) : first;
    taken.add(address);
    byStudent.set(student, address);
  }
  return (student) => sure(byStudent.get(student));
}

function rosterCsv(
  students: readonly MadeStudent[],
  emailOf: (student: MadeStudent) => string,
  numbers: ReadonlyMap<MadeStudent, string>,
): string {
  const rows = students.map((student) =>
    [
      sure(numbers.get(student)),
      student.name,
      student.family,
      emailOf(student),
      student.reading,
      student.experience,
      student.timetable,
      student.kitchen,
      student.language,
      `"${freeTime(student)}"`,
    ].join(','),
  );
  return `Number,Name,Family name,Email,Latin name,Lab experience,Timetable,Kitchen access,First language,Free half-days\n${rows.join('\n')}\n`;
}

/** Seats people by address; null takes them out. */
async function place(
  instructor: Client,
  setId: string,
  courseId: string,
  seats: ReadonlyMap<string, string | null>,
): Promise<void> {
  const board = await instructor.get<BoardView>(`sets/${setId}/board`);
  const roster = await instructor.get<RosterView>(`courses/${courseId}/roster`);
  const moves = [...seats].map(([email, groupName]) => {
    const student = sure(roster.entries.find((entry) => entry.email === email)).enrolmentId;
    const from = sure(board.students.find((each) => each.enrolmentId === student)).seats[0]?.groupId ?? null;
    return {
      student,
      from,
      to: groupName === null ? null : sure(board.groups.find((group) => group.name === groupName)).id,
    };
  });
  await instructor.post(`sets/${setId}/place`, { moves });
}

const swapMembers = (
  instructor: Client,
  setId: string,
  courseId: string,
  one: string,
  oneTo: string,
  other: string,
  otherTo: string,
) =>
  place(
    instructor,
    setId,
    courseId,
    new Map([
      [one, oneTo],
      [other, otherTo],
    ]),
  );

const seated = (seats: ReadonlyMap<string, string>, vessel: Vessel) =>
  [...seats].flatMap(([email, at]) => (at === vessel ? [email] : []));

/** Some members write, one adds the readings, and the first hands in. `writers`: who of them writes a part. */
async function handInFor(
  { instructor, people, courseId, seated: at }: Stage,
  title: string,
  vessel: Vessel,
  writers: readonly number[],
  isHandedIn = true,
): Promise<void> {
  const members = at(vessel);
  const { copyId } = sure((await copiesOf(instructor, courseId, title)).get(vessel));
  for (const [seat, email] of members.entries()) {
    if (seat > 0 && !writers.includes(seat)) continue;
    const client = people.of(email);
    if (writers.includes(seat))
      await client.put(`copies/${copyId}/part`, {
        text: sure(parts[seat % parts.length])(vessel),
        version: 0,
      });
    if (seat === 1 || members.length === 1)
      await client.upload(
        `copies/${copyId}/files`,
        `${vessel.toLowerCase()}-readings.csv`,
        'text/csv',
        readingsCsv(vessel),
      );
  }
  if (isHandedIn) await people.of(sure(members[0])).post(`copies/${copyId}/hand-in`, { attempt: 1 });
}
