import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import type { AudienceView } from '@jigsaw/contract/audiences';
import type { WikiView } from '@jigsaw/contract/wiki';
import type { ActivityView, AttachedFile } from '@jigsaw/contract/release';
import type { CopyId, EnrolmentId, GroupId, GroupSetId } from '@jigsaw/core/ids';
import type { KeptEntry, OutsiderRule, ReleaseMode, Schedule } from '@jigsaw/core/release';
import { anAssignment, aSecondSet, aText, attach, toRead } from './aCourse.js';
import type { CourseForTests } from './aCourse.js';
import { sure } from '@jigsaw/core/lists';
import { setActs } from './setActs.js';
import type { TestServer } from './testServer.js';

/** Courses by chance: what is released in them to whichever of their groups and people, and when. What the server then shows is compared with the decision,
 * which knows of this plan and of nothing in the database. */
const students = ['noor', 'jorge', 'amina', 'kofi', 'nino'] as const;
export type StudentName = (typeof students)[number];
/** The groups of a made course by their place: two bench teams, two panels. */
type Place = 0 | 1 | 2 | 3;
const places = fc.constantFrom<Place>(0, 1, 2, 3);
const people = fc.constantFrom(...students);

type To = 'class' | 'staff' | 'benches' | 'panels' | 'saved' | Place | StudentName;
const aTo: fc.Arbitrary<To> = fc.oneof(
  fc.constantFrom<To>('class', 'benches', 'benches', 'panels', 'saved', 'staff'),
  places,
  people,
);

const anActivity = fc
  .record({
    kind: fc.constantFrom('assignment', 'discussion', 'discussion', 'wiki', 'notice'),
    mode: fc.constantFrom<ReleaseMode>('own', 'own', 'read-along', 'common'),
    to: fc.uniqueArray(aTo, { minLength: 1, maxLength: 3 }),
    without: fc.subarray([...students], { maxLength: 1 }),
    outsiders: fc.constantFrom<OutsiderRule>('hidden', 'listed'),
    fate: fc.constantFrom('draft', 'scheduled', 'live', 'live', 'live', 'live', 'withdrawn'),
    hasDates: fc.boolean(),
    moreTime: fc.option(fc.oneof(places, people)),
  })
  .map(({ mode: wished, to, ...made }) => {
    const isPossible = !(made.kind === 'assignment' && wished === 'common') && !(made.kind === 'notice' && wished === 'read-along'); // prettier-ignore
    const mode = isPossible ? wished : 'own';
    // Where each group has a copy it goes to groups.
    const groups = to.filter((each) => typeof each === 'number' || each === 'benches' || each === 'panels' || each === 'saved'); // prettier-ignore
    return {
      ...made,
      mode,
      to: mode === 'common' ? to : groups.length > 0 ? groups : (['benches'] as const),
    };
  });
type MadeActivity = typeof anActivity extends fc.Arbitrary<infer Made> ? Made : never;

export const aPlan = fc.record({
  activities: fc.array(anActivity, { minLength: 9, maxLength: 9 }),
  saved: fc.record({ group: places, person: people }),
  /** Leaves their bench team, and joins the other one later. */
  moves: fc.constantFrom('noor', 'jorge', 'amina'),
  drops: fc.constantFrom('kofi', 'nino'),
  /** Whether assistants see the work of groups that they do not lead. */
  isOpen: fc.boolean(),
});
export type Plan = typeof aPlan extends fc.Arbitrary<infer Made> ? Made : never;

/** An activity of a made course, with words that stand nowhere else. */
export interface MadeOne {
  readonly made: MadeActivity;
  readonly id: string;
  readonly title: string;
  readonly brief: string;
  /** Of the file that is attached to it; null: none. */
  readonly file: { readonly id: string; readonly content: string } | null;
  readonly schedule: Schedule;
  /** Once it is scheduled. */
  readonly goesLiveAt: number;
  readonly include: readonly KeptEntry[];
  readonly exclude: readonly EnrolmentId[];
  readonly copies: readonly MadeCopy[];
  readonly moreTime: { readonly of: string; readonly due: number } | null;
}
interface MadeCopy {
  readonly id: CopyId;
  readonly groupId: GroupId | null;
  /** What someone wrote there; null: no one could. */
  readonly said: string | null;
  readonly pageIds: readonly string[];
}
export interface MadeCourse {
  readonly given: CourseForTests;
  readonly groups: readonly { readonly groupId: GroupId; readonly setId: GroupSetId }[];
  readonly activities: readonly MadeOne[];
  readonly saved: { readonly groupId: GroupId; readonly enrolmentId: EnrolmentId };
}

const hour = 3_600_000;

export async function aMadeCourse(
  server: TestServer,
  given: CourseForTests,
  plan: Plan,
): Promise<MadeCourse> {
  const { instructor, course, set, board } = given;
  const { idOf, change } = setActs(() => given);
  await change({ capacity: 4 });
  const panels = await aSecondSet(given);
  const groups = [
    ...board.groups.map(({ id }) => ({ groupId: id, setId: set.id })),
    ...panels.groups.map(({ id }) => ({ groupId: id, setId: panels.set.id })),
  ];
  const groupAt = (place: Place) => sure(groups[place]);
  const { id: audienceId } = (
    await instructor
      .post(`/api/courses/${course.id}/audiences`)
      .send({
        name: 'Dairy',
        include: [
          { kind: 'group', ...groupAt(plan.saved.group) },
          { kind: 'person', enrolmentId: idOf(plan.saved.person) },
        ],
        exclude: [],
      })
      .expect(200)
  ).body as AudienceView;
  const entryOf = (to: To): KeptEntry => {
    if (typeof to === 'number') return { kind: 'group', ...groupAt(to) };
    if (to === 'class' || to === 'staff') return { kind: to };
    if (to === 'benches' || to === 'panels') return { kind: 'set', setId: groupAt(to === 'benches' ? 0 : 2).setId }; // prettier-ignore
    return to === 'saved' ? { kind: 'audience', audienceId } : { kind: 'person', enrolmentId: idOf(to) };
  };

  const begin = server.clock.now().getTime();
  const at = (hours: number) => new Date(begin + hours * hour);
  const dates = { opens: at(20), due: at(30), closes: at(40) };
  const none = { opens: null, due: null, closes: null };
  const activities: MadeOne[] = [];
  for (const [number, made] of plan.activities.entries()) {
    const { kind, mode, outsiders, fate } = made;
    const title = `Title${number}q`;
    const brief = `Brief${number}q`;
    const hasDates = made.hasDates && kind !== 'notice';
    const written = anAssignment({
      ...(kind === 'notice' ? toRead(kind) : { kind, settings: {} }),
      title,
      brief: aText(brief),
      schedule: hasDates
        ? {
            opens: dates.opens.toISOString(),
            due: dates.due.toISOString(),
            closes: dates.closes.toISOString(),
          }
        : none,
    });
    let activity = (await instructor.post(`/api/courses/${course.id}/activities`).send(written).expect(200)).body as ActivityView; // prettier-ignore
    let file: MadeOne['file'] = null;
    if (kind === 'assignment') {
      const content = `File${number}q`;
      const sent = (await attach(instructor, activity.id, 'readings.txt', Buffer.from(content)).expect(200)).body as AttachedFile; // prettier-ignore
      activity = (await instructor.put(`/api/activities/${activity.id}`).send({ ...written, files: [{ ...sent, isPerGroup: false }], version: activity.version }).expect(200)).body as ActivityView; // prettier-ignore
      file = { id: sent.id, content };
    }
    const include = made.to.map(entryOf);
    const exclude = made.without.map(idOf);
    const goesLiveAt = at(22);
    const asked = { to: { include, exclude }, mode, outsiders, goesLiveAt: fate === 'scheduled' ? goesLiveAt.toISOString() : null, version: activity.version }; // prettier-ignore
    // What reaches no one is refused and stays a draft.
    const isOut = fate !== 'draft' && (await instructor.post(`/api/activities/${activity.id}/release`).send(asked)).status === 200; // prettier-ignore
    const copies = isOut ? await copiesOf(server, given, activity.id, `Said${number}x`) : [];
    const moreTime = isOut && hasDates && made.moreTime !== null ? await grant(made.moreTime, activity.id) : null; // prettier-ignore
    if (isOut && fate === 'withdrawn')
      await instructor.post(`/api/activities/${activity.id}/withdraw`).expect(200);
    activities.push({
      made: isOut ? made : { ...made, fate: 'draft' },
      id: activity.id,
      title,
      brief,
      file,
      schedule: hasDates
        ? { opens: dates.opens.getTime(), due: dates.due.getTime(), closes: dates.closes.getTime() }
        : none,
      goesLiveAt: goesLiveAt.getTime(),
      include,
      exclude,
      copies,
      moreTime,
    });
  }
  const saved = { groupId: groupAt(plan.saved.group).groupId, enrolmentId: idOf(plan.saved.person) };
  return { given, groups, activities, saved };

  /** Until after the last moment that is looked at, where whoever it is for has it at all. */
  async function grant(to: Place | StudentName, activityId: string): Promise<MadeOne['moreTime']> {
    const of = typeof to === 'number' ? groupAt(to).groupId : idOf(to);
    const path = typeof to === 'number' ? 'extensions' : 'student-extensions';
    const { status } = await instructor
      .put(`/api/activities/${activityId}/${path}/${of}`)
      .send({ due: at(60).toISOString(), closes: null, reason: 'Ill' });
    return status === 200 ? { of, due: at(60).getTime() } : null;
  }
}

/** The copies of an activity, in each of which a student or the instructor has written where that is possible. */
async function copiesOf(
  server: TestServer,
  given: CourseForTests,
  activityId: string,
  words: string,
): Promise<MadeCopy[]> {
  const { instructor } = given;
  const copies = (await server.rows(
    `SELECT c."id", c."groupId" FROM "copy" c JOIN "release" r ON r."id" = c."releaseId" WHERE r."activityId" = '${activityId}' ORDER BY c."id"`,
  )) as Pick<MadeCopy, 'id' | 'groupId'>[];
  const made: MadeCopy[] = [];
  for (const [number, { id: copyId, groupId }] of copies.entries()) {
    const said = `${words}${number}q`;
    const isSaid = await someoneSays(given, copyId, said);
    const wiki = await instructor.get(`/api/copies/${copyId}/wiki`);
    const pageIds = wiki.status === 200 ? (wiki.body as WikiView).pages.map(({ id }) => id) : [];
    made.push({ id: copyId, groupId, said: isSaid ? said : null, pageIds });
  }
  return made;
}

async function someoneSays({ instructor, students: all }: CourseForTests, copyId: CopyId, said: string) {
  for (const by of [...[...all.values()].map(({ browser }) => browser), instructor]) {
    const tries = [
      by.put(`/api/copies/${copyId}/part`).send({ text: aText(said), version: 0 }),
      by.post(`/api/copies/${copyId}/posts`).send({ id: randomUUID(), parentId: null, text: aText(said) }),
      by.post(`/api/copies/${copyId}/wiki/pages`).send({ id: randomUUID(), title: said }),
    ];
    for (const tried of tries) if ((await tried).status === 200) return true;
  }
  return false;
}
