import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { DataSource } from 'typeorm';
import type { SightAudience, SightlinesView } from '@jigsaw/contract/sightlines';
import type { CourseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy } from '@jigsaw/core/lists';
import type { KeptAudience } from '@jigsaw/core/release';
import { audiencesNow } from '../audiences/index.js';
import { toldApart, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { seatsSoFar } from '../placing/index.js';
import type { ActivityOfCourse, Evaluator } from '../release/index.js';
import { releasesOfCourse } from '../release/index.js';
import { groupsOfSets, setsOfCourse } from '../sets/index.js';

/** All that decides who sees what in a course, in one answer, so that pages can ask the decision function themselves. */
@Injectable()
export class SightlinesService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly clock: Clock,
  ) {}

  async read(person: SignedIn, courseId: CourseId): Promise<SightlinesView> {
    await this.viewers.staff(person, courseId, 'release');
    // Of one moment: a move while this is read must not seat anyone twice.
    return this.dataSource.transaction('REPEATABLE READ', (manager) => this.of(manager, courseId));
  }

  /** Who may know of it is the caller's to decide. */
  async of(manager: EntityManager, courseId: CourseId): Promise<SightlinesView> {
    const everyone = await this.viewers.everyone(manager, courseId);
    const apart = await toldApart(manager, courseId);
    const sets = (await setsOfCourse(manager, courseId)).filter((set) => set.archivedAt === null);
    const groupsOf = groupedBy(
      await groupsOfSets(
        manager,
        sets.map(({ id }) => id),
      ),
      (group) => group.setId,
    );
    const seats = await seatsSoFar(manager, courseId);
    const { activities, evaluator } = await releasesOfCourse(manager, courseId);
    const { rows: audiences, saved } = await audiencesNow(manager, courseId);
    const students = new Set(
      everyone.flatMap(({ viewer }) => (viewer.role === 'student' ? [viewer.enrolmentId] : [])),
    );
    return {
      courseId,
      people: everyone.map(({ viewer, name, reading, leftAt }) => ({
        enrolmentId: viewer.enrolmentId,
        name: apart(viewer.enrolmentId, name),
        reading,
        role: viewer.role,
        leftAt: iso(leftAt),
        leads: [...viewer.leads],
        seesOnlyLed: viewer.seesOnlyLed,
      })),
      seats: seats.map(({ from, until, ...seat }) => ({
        ...seat,
        from: from.toISOString(),
        until: iso(until),
      })),
      sets: sets.map(({ id, name }) => ({
        setId: id,
        name,
        groups: (groupsOf.get(id) ?? []).map((group) => ({
          groupId: group.id,
          number: group.number,
          name: group.name,
        })),
      })),
      activities: activities.map((each) => activityView(each, evaluator)),
      audiences: audiences.map(({ id, name }) => ({
        audienceId: id,
        name,
        people: [...saved(id).people.keys()].filter((enrolmentId) => students.has(enrolmentId)),
      })),
      serverTime: this.clock.now().toISOString(),
    };
  }
}

function activityView(
  { activity, release, copies, extensions, ownTime }: ActivityOfCourse,
  evaluator: Evaluator,
): SightlinesView['activities'][number] {
  const { id, title, kind, opens, due, closes } = activity;
  const granted = keyedBy(extensions, (row) => row.groupId);
  const time = (row: { due: Date; closes: Date | null }) => ({
    due: row.due.toISOString(),
    closes: iso(row.closes),
  });
  return {
    activityId: id,
    title,
    kind,
    schedule: { opens: iso(opens), due: iso(due), closes: iso(closes) },
    release: release && {
      state: release.state,
      at: iso(release.stateAt),
      mode: release.mode,
      outsiders: release.outsiders,
      audience: audienceView(release.audience, evaluator),
      ownTime: ownTime.map((row) => ({ enrolmentId: row.enrolmentId, ...time(row) })),
      copies: copies.map((copy) => {
        const extension = copy.groupId === null ? undefined : granted.get(copy.groupId);
        return {
          copyId: copy.id,
          groupId: copy.groupId,
          setId: copy.setId,
          extension: extension ? time(extension) : null,
        };
      }),
    },
  };
}

function audienceView(kept: KeptAudience, { audienceNow, audienceName }: Evaluator): SightAudience {
  const { include, exclude } = audienceNow(kept);
  return {
    include: include.map((entry) =>
      entry.kind === 'audience'
        ? {
            kind: entry.kind,
            audienceId: entry.audienceId,
            name: audienceName(entry.audienceId) ?? '',
            people: [...entry.people.keys()],
            groups: [...entry.groups].map(([groupId, setId]) => ({ groupId, setId })),
          }
        : entry,
    ),
    exclude: [...exclude],
  };
}

const iso = (at: Date | null) => at?.toISOString() ?? null;
