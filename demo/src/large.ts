import type { BoardView } from '@jigsaw/contract/placing';
import type { CourseView } from '@jigsaw/contract/course';
import type { ReadyMarks } from '@jigsaw/contract/marks';
import type { ActivityList, ActivityView } from '@jigsaw/contract/release';
import { halfDays, writeHalfDays } from '@jigsaw/core/course';
import { sure } from '@jigsaw/core/lists';
import { wholeSet } from '@jigsaw/core/release';
import { importPeople, importPaste, makeSet } from './importPeople.js';
import { Client } from './client.js';
import { leaveTraces, letStudentsIn } from './largeTraces.js';
import { demoPassword, domain, staff } from './people.js';
import type { StoryClock } from './storyClock.js';
import { timeZone } from './storyClock.js';
import { largeBrief } from './texts.js';

/** The yardstick also asks for a course that is larger still. */
const teams = Number(process.env['JIGSAW_LARGE_TEAMS'] ?? 160);
const activities = Number(process.env['JIGSAW_LARGE_ACTIVITIES'] ?? 30);
const perTeam = 4;
const sections = 16;
const leaders = 8;
const weeks = 12;

const given = ['Zofia', 'Noor', '서연', 'Łukasz', 'Amina', 'Jorge', 'Πηνελόπη', 'Ayşe', 'Søren', 'Kofi', 'Mireille', 'Dáithí', 'Тамара', '雨桐', 'Anneliese', 'Callum', 'Ngozi', 'Ingrid', 'Emre', 'Yara', 'Tiago', 'Saoirse', 'Hye-jin', 'Olu', 'Bram', 'Leila', 'Matteo', 'Piers', 'Nino', 'Ravi', 'Astrid', 'Chidi']; // prettier-ignore
const family = ['Wiśniewska', 'Haddad', '한', 'Przybyłko', 'Diallo', 'Peñaloza', 'Καραθάνου', 'Karadağ', 'Bjerregaard', 'Asare', 'Dûchesne', 'Ó Conghaile', 'Белозёрова', '林', 'Krumbholz', 'Reith', 'Eze', 'Solheim', 'Öztürk', 'Aziz']; // prettier-ignore

/** The 640, by number; those of one team are 160 apart. No one here exists. */
const students = Array.from({ length: teams * perTeam }, (_, at) => ({
  name: `${sure(given[(at * 7 + Math.floor(at / teams) * 5) % given.length])} ${sure(family[Math.floor(at / given.length) % family.length])}`,
  email: `brewer${at + 1}@${domain}`,
  number: String(40_000 + at),
  section: `Lab ${(at % sections) + 1}`,
  experience: sure(['none', 'some', 'some', 'plenty'][(at * 7 + Math.floor(at / teams)) % 4]),
  language: sure(['English', 'Polish', 'Korean', 'Twi', 'Portuguese', 'Arabic', 'Greek'][(at * 5) % 7]),
  free: writeHalfDays(new Set(halfDays.filter((_each, day) => ((at + 3) * (day + 5)) % 7 < 3))),
}));

const assistants = Array.from({ length: leaders }, (_, at) => ({
  name: `Assistant ${sure(family[at])}`,
  email: `assistant${at + 1}@${domain}`,
}));

/** Who the sign-in page offers of the large course. */
export const offeredAtLarge = [
  { email: staff.instructor.email, note: 'teaches 640 students in 160 teams' },
  { email: sure(assistants[0]).email, note: 'assists and leads 20 teams' },
  { email: sure(students[0]).email, note: 'in Team 1' },
  { email: sure(students[90]).email, note: 'in Team 91' },
];

interface Planned {
  readonly kind: 'assignment' | 'discussion' | 'wiki';
  readonly title: string;
  /** Weeks before this one in which it was released; less than 0: it is still to come. */
  readonly week: number;
}

/** Three pieces of work a week or so, over the term: 30 in all, the last one still to come. */
const plan: readonly Planned[] = [
  ...weekly('assignment', 'Process log', Math.round(activities * 0.6)),
  ...weekly('discussion', 'Week in the brewhouse', Math.round((activities * 7) / 30)),
  ...weekly('wiki', 'Line handbook', Math.round(activities / 6)),
];

function weekly(kind: Planned['kind'], title: string, count: number): Planned[] {
  return Array.from({ length: count }, (_, at) => ({
    kind,
    title: `${title} ${at + 1}`,
    week: weeks - 2 - Math.floor((at * weeks) / count),
  }));
}

/** A term of Industrial Brewing: the class, its teams and activities through the public API, what everyone did in them straight into the database,
 * since a term of 640 people takes longer than two minutes through the front door. */
export async function tellLargeStory(base: string, clock: StoryClock, databaseUrl: string): Promise<void> {
  const instructor = new Client(base, { email: staff.instructor.email, password: demoPassword });
  clock.weeksAgo(weeks, 'Mon 09:00');
  const course = await instructor.post<CourseView>('courses', {
    code: 'BRW 501',
    title: 'Industrial Brewing',
    term: clock.term(),
    timeZone,
  });
  const heading = 'Number,Name,Email,Cohort,Lab experience,First language,Free half-days';
  const rows = students.map(
    (each) =>
    [each.number, each.name, each.email, each.section, each.experience, each.language, `"${each.free}"`].join(','), // prettier-ignore
  );
  await importPeople(instructor, course.id, `${heading}\n${rows.join('\n')}\n`, 'student', 'brw501.csv');
  const addressed = (people: readonly { name: string; email: string }[]) =>
    people.map(({ name, email }) => `${name} <${email}>`).join('\n');
  await importPaste(instructor, course.id, addressed(assistants), 'assistant');
  await importPaste(instructor, course.id, addressed([staff.observer]), 'observer');
  await letStudentsIn(base, instructor, databaseUrl, course.id);

  const set = await makeSet(instructor, course.id, 'Team', { by: 'count', groups: teams }, perTeam, []);
  const board = await instructor.get<BoardView>(`sets/${set.id}/board`);
  const numberOf = new Map(students.map((each, at) => [each.number, at]));
  await instructor.post(`sets/${set.id}/place`, {
    moves: board.students.map(({ enrolmentId, number }) => ({
      student: enrolmentId,
      from: null,
      to: sure(board.groups[sure(numberOf.get(number ?? '')) % teams]).id,
    })),
  });
  const { staff: people } = board;
  const leading = assistants.map(({ name }) => sure(people.find((each) => each.name === name)).enrolmentId);
  await instructor.put(`sets/${set.id}/leads`, {
    leads: board.groups.map(({ id }, at) => ({ groupId: id, enrolmentIds: [sure(leading[Math.floor((at * leaders) / teams)])] })), // prettier-ignore
  });

  for (const planned of plan.toSorted((one, other) => other.week - one.week)) {
    clock.weeksAgo(Math.max(0, planned.week), 'Mon 10:00'); // what is still to come is set ahead
    await releaseTo(instructor, course.id, planned, clock, set.id);
  }
  await leaveTraces(databaseUrl, course.id);
  clock.daysAgo(1, '10:00');
  await releaseOldMarks(instructor, course.id, clock.at(2, 'Mon 00:00'));
}

async function releaseTo(
  instructor: Client,
  courseId: string,
  { kind, title, week }: Planned,
  clock: StoryClock,
  setId: string,
): Promise<void> {
  const isMarked = kind === 'assignment';
  const { id, version } = await instructor.post<ActivityView>(`courses/${courseId}/activities`, {
    kind,
    title,
    brief: largeBrief(title),
    points: isMarked ? '20' : null,
    rubric: null,
    schedule: { opens: null, due: isMarked ? clock.at(week - 1, 'Fri 17:00') : null, closes: null },
    latePolicy: { graceMinutes: 15, stepPercent: 10, periodMinutes: 1440, capPercent: 50 },
    settings: {},
  });
  await instructor.post(`activities/${id}/release`, {
    to: wholeSet(setId as never),
    mode: 'own',
    outsiders: 'hidden',
    goesLiveAt: week < 0 ? clock.at(week, 'Mon 09:00') : null,
    version,
  });
}

/** What was due long enough ago has its marks out; the rest waits on the desk. */
async function releaseOldMarks(instructor: Client, courseId: string, dueBefore: string): Promise<void> {
  const { activities } = await instructor.get<ActivityList>(`courses/${courseId}/activities`);
  for (const { release, schedule, points } of activities) {
    if (!release || points === null || schedule.due === null || schedule.due > dueBefore) continue;
    const { toRelease } = await instructor.get<ReadyMarks>(`releases/${release.id}/marks/ready`);
    const units = toRelease
      .filter((each) => each.lacks === null)
      .map(({ copyId, unit, version }) => ({ copyId, unit, version }));
    if (units.length > 0) await instructor.post(`releases/${release.id}/marks/release`, { units });
  }
}
