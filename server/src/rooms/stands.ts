import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { CopyId, CourseId, EnrolmentId, GroupId, ReleaseId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { soonMs } from '@jigsaw/core/rooms';
import { courseOf } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import type { CountedUntil } from '../platform/keptByCourse.js';
import type { CopyAccess, OpenQuestions } from '../release/index.js';
import { Gate, Kinds, membersOfCopies, nextDue } from '../release/index.js';
import { sinceShown } from './days.js';
import { MarksInRooms } from './marksInRooms.js';
import type { Waiting } from './marksInRooms.js';
import { News } from './news.service.js';

/** Where one group is with one activity, as far as it is the same for all staff and at all times until something happens there. Moments are milliseconds. */
export interface Stand {
  readonly groupId: GroupId;
  readonly copyId: CopyId;
  readonly releaseId: ReleaseId;
  readonly title: string;
  readonly kind: string;
  readonly latest: { readonly at: string; readonly by: string } | null;
  /** From when on its members can do something there. */
  readonly since: number;
  readonly due: number | null;
  readonly isHandedIn: boolean;
  /** How far what it asks for is, where that is due soon or was; null: nothing is asked, or it is due later. */
  readonly work: 'not-started' | 'begun' | 'there' | null;
  readonly questions: OpenQuestions | null;
  /** For its mark; null: nothing is. */
  readonly waiting: Waiting | null;
  /** When each of its people wrote something last. */
  readonly lastBy: ReadonlyMap<EnrolmentId, number>;
  /** How much was written, by day; days are counted from 1970 on, in the course's zone. */
  readonly days: ReadonlyMap<number, number>;
}

@Injectable()
export class Stands {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly marks: MarksInRooms,
  ) {}

  /** Of every group with these activities; a few queries, however many there are. */
  async ofReleases(
    person: SignedIn,
    courseId: CourseId,
    releases: readonly ReleaseId[],
    now: Date,
  ): Promise<ReadonlyMap<ReleaseId, CountedUntil<readonly Stand[]>>> {
    const { entered } = await this.gate.enterAll(person, courseId, { releases });
    const accesses = groupedBy(entered, (access) => access.release.id);
    const stands = groupedBy(await this.in(entered, now), (stand) => stand.releaseId);
    return new Map(
      releases.map((id) => [
        id,
        { value: stands.get(id) ?? [], until: untilOf(accesses.get(id) ?? [], now) },
      ]),
    );
  }

  async in(accesses: readonly CopyAccess[], now: Date): Promise<Stand[]> {
    const own = accesses.filter(({ copy }) => copy.groupId !== null);
    const [first] = own;
    if (!first) return [];
    const { manager } = this.dataSource;
    const { timeZone } = await courseOf(manager, first.viewer.courseId);
    const asking = own.filter(({ activity, schedule }) => this.kinds.of(activity).isWork && schedule.due !== null && schedule.due < now.getTime() + soonMs); // prettier-ignore
    const membersOf = await membersOfCopies(manager, asking);
    const progress = await this.kinds.progress({ accesses: asking, manager, now, membersOf });
    const releases = [...keyedBy(own, ({ release }) => release.id).values()];
    const latest = keyedBy(await this.news.latestIn(releases), (each) => each.copyId);
    const written = groupedBy(
      await this.news.writtenIn(releases, timeZone, sinceShown(now)),
      (row) => row.copyId,
    );
    const questions = await this.kinds.openQuestions(own, manager);
    const waiting = await this.marks.waitingIn(own, manager);
    return own.map(({ copy, release, activity, schedule }): Stand => {
      const last = latest.get(copy.id);
      const stand = progress.get(copy.id);
      const rows = written.get(copy.id) ?? [];
      return {
        groupId: sure(copy.groupId),
        copyId: copy.id,
        releaseId: release.id,
        title: activity.title,
        kind: activity.kind,
        latest: last ? { at: last.at.toISOString(), by: last.by } : null,
        since: Math.max(schedule.opens ?? 0, (release.stateAt ?? activity.createdAt).getTime()),
        due: schedule.due,
        isHandedIn: this.kinds.of(activity).isHandedIn,
        work: !stand ? null : stand.state === 'not-started' ? 'not-started' : stand.state !== 'done' && stand.at === null ? 'begun' : 'there', // prettier-ignore
        questions: questions.get(copy.id) ?? null,
        waiting: waiting.get(copy.id) ?? null,
        lastBy: new Map([...groupedBy(rows, (row) => row.authorId)].map(([id, by]) => [id, Math.max(...by.map(({ at }) => at.getTime()))])), // prettier-ignore
        days: new Map([...groupedBy(rows.filter(isRecent), (row) => row.day)].map(([day, on]) => [day, on.reduce((sum, { count }) => sum + count, 0)])), // prettier-ignore
      };
    });
  }
}

const isRecent = <Row extends { readonly day: number | null }>(row: Row): row is Row & { readonly day: number } => row.day !== null; // prettier-ignore

/** When time alone makes it old: something is due, or is due soon. */
function untilOf(accesses: readonly CopyAccess[], now: Date): number | null {
  const due = nextDue(accesses, now.getTime());
  const soon = nextDue(accesses, now.getTime() + soonMs);
  if (soon === null) return due;
  return due === null ? soon - soonMs : Math.min(due, soon - soonMs);
}
