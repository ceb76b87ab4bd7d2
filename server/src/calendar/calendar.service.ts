import { Inject, Injectable } from '@nestjs/common';
import type { Entry } from '@jigsaw/core/calendar';
import { entriesOf } from '@jigsaw/core/calendar';
import type { CopyId } from '@jigsaw/core/ids';
import { briefFor } from '@jigsaw/core/release';
import { plainText } from '@jigsaw/core/text';
import type { CourseView } from '@jigsaw/contract/course';
import { DataSource } from 'typeorm';
import { CoursesService } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { PeopleService } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import type { Config } from '../platform/config.js';
import { CONFIG } from '../platform/config.js';
import { problems } from '../platform/problems.js';
import type { CopyAccess } from '../release/index.js';
import { editionsOf, Gate, isOut, Kinds } from '../release/index.js';
import { groupTags } from '../sets/index.js';
import { AddressesService } from './addresses.service.js';
import { iCalendar } from './iCalendar.js';

const longestDescription = 1_000;

/** What people have to keep, in their own calendars: events and due times, as they would see them in their rooms. */
@Injectable()
export class CalendarService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly addresses: AddressesService,
    private readonly people: PeopleService,
    private readonly courses: CoursesService,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly clock: Clock,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** All of someone's courses in one file.
   * @throws not-found for an address that is no one's, and for that of anyone who is in no course any more. */
  async feed(token: string): Promise<string> {
    const ownerId = await this.addresses.ownerOf(token);
    const person = ownerId === null ? null : await this.people.asSignedIn(ownerId);
    if (!person) throw problems.notFound();
    const { courses } = await this.courses.list(person);
    if (courses.length === 0) throw problems.notFound();
    const entries: Entry[] = [];
    for (const course of courses) {
      const { entered } = await this.gate.enterAll(person, course.id);
      entries.push(...(await this.entries(course, entered)));
    }
    return iCalendar('Jigsaw Room', entries);
  }

  /** One event as a file. */
  async event(person: SignedIn, copyId: CopyId): Promise<string> {
    const access = await this.gate.enter(person, copyId);
    const { courses } = await this.courses.list(person);
    const course = courses.find(({ id }) => id === access.release.courseId);
    if (!course || !this.kinds.happensOf(access.activity, access.copy.groupId)) throw problems.notFound();
    return iCalendar(access.activity.title, await this.entries(course, [access]));
  }

  private async entries(course: CourseView, entered: readonly CopyAccess[]): Promise<Entry[]> {
    const now = this.clock.now();
    // Work of others that one reads along is not one's own to keep.
    const own = entered.filter((access) => isOut(access, now) && access.decision.part !== 'reader');
    const tags = await groupTags(
      this.dataSource.manager,
      own.map((access) => access.copy.groupId),
    );
    const isStudent = course.role === 'student';
    // What staff only write shows nowhere, not even as a number that counts up.
    const editions = await editionsOf(
      this.dataSource.manager,
      own.map((access) => access.copy.id),
    );
    return entriesOf(
      own.map(({ copy, release, activity, schedule, viewer }) => {
        const group = copy.groupId === null ? null : (tags.get(copy.groupId)?.name ?? null);
        // Staff have one line for all copies, with all that is written for any of them.
        const brief = briefFor(
          activity.brief,
          isStudent
            ? { copyOf: copy.groupId, groups: viewer.groups.map(({ groupId }) => groupId) }
            : { copyOf: null, groups: null },
        );
        const url = `${this.config.publicUrl}/c/${course.id}/copies/${copy.id}`;
        return {
          copyId: copy.id,
          releaseId: release.id,
          title: activity.title,
          course: course.code,
          timeZone: course.timeZone,
          groupName: group,
          description: `${plainText(brief).slice(0, longestDescription)}\n${url}`.trim(),
          url,
          due: isStudent ? schedule.due : (activity.due?.getTime() ?? null),
          happens: this.kinds.happensOf(activity, copy.groupId),
          isOwnTime: copy.groupId !== null && this.kinds.groupsWithOwn(activity).includes(copy.groupId),
          version: editions.get(copy.id)?.edition ?? 0,
          changedAt: (editions.get(copy.id)?.at ?? release.stateAt ?? activity.createdAt).getTime(),
        };
      }),
      isStudent ? 'member' : 'staff',
    );
  }
}
