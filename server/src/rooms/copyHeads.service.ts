import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { CopyId } from '@jigsaw/core/ids';
import { assert } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import { briefFor } from '@jigsaw/core/release';
import { authorsById } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { OwnFilesService } from '../ownFiles/index.js';
import type { CopyAccess } from '../release/index.js';
import { Gate, Kinds, membersOfCopies, plainDecimal } from '../release/index.js';
import { groupTags } from '../sets/index.js';
import { News } from './news.service.js';

/** The head of a copy: what was set, who has it and until when. */
@Injectable()
export class CopyHeads {
  constructor(
    private readonly dataSource: DataSource,
    private readonly gate: Gate,
    private readonly kinds: Kinds,
    private readonly news: News,
    private readonly ownFiles: OwnFilesService,
    private readonly clock: Clock,
  ) {}

  /** What every copy has, whatever its kind, and which other groups' copies of the same the person may look into. */
  async head(person: SignedIn, copyId: CopyId): Promise<CopyHead> {
    const access = await this.gate.enter(person, copyId);
    const { entered } = await this.gate.enterAll(person, access.release.courseId, {
      releases: [access.release.id],
    });
    return this.headOf(access, entered);
  }

  async headOf(access: CopyAccess, siblings: readonly CopyAccess[]): Promise<CopyHead> {
    const { copy, release, activity, schedule, decision, viewer } = access;
    const extension = extensionShown(access);
    const { manager } = this.dataSource;
    const membersOf = await membersOfCopies(manager, [access]);
    const member = await authorsById(manager, membersOf(copy.id), viewer.enrolmentId);
    const tags = await groupTags(
      manager,
      siblings.map((each) => each.copy.groupId),
    );
    const news = await this.news.of(siblings);
    const progress = await this.kinds.progress({
      accesses: siblings,
      manager,
      now: this.clock.now(),
      membersOf: await membersOfCopies(manager, siblings),
    });
    const siblingOf = keyedBy(siblings, (each) => each.copy.groupId);
    const group = copy.groupId === null ? null : (tags.get(copy.groupId) ?? null);
    assert(copy.groupId === null || group, 'a copy of a group has one');
    return {
      id: copy.id,
      releaseId: release.id,
      activityId: activity.id,
      kind: activity.kind,
      settings: this.kinds.settingsFor(activity, copy.groupId) as CopyHead['settings'],
      title: activity.title,
      brief: briefFor(activity.brief, {
        copyOf: copy.groupId,
        groups: viewer.role === 'student' ? viewer.groups.map(({ groupId }) => groupId) : null,
      }),
      files: activity.files.filter(({ isPerGroup }) => !isPerGroup),
      ownFiles: await this.ownFiles.of(manager, access),
      points: activity.points === null ? null : plainDecimal(activity.points),
      rubric: activity.rubric as CopyHead['rubric'],
      schedule: { opens: iso(schedule.opens), due: iso(schedule.due), closes: iso(schedule.closes) },
      extension,
      latePolicy: activity.latePolicy,
      access: decision.access,
      part: decision.part,
      mode: release.mode,
      group,
      members: membersOf(copy.id).map(member),
      others: [...tags.values()].flatMap((tag) => {
        const sibling = sure(siblingOf.get(tag.id));
        return sibling.copy.id === copy.id
          ? []
          : [
              {
                copyId: sibling.copy.id,
                group: tag,
                unread: news(sibling.copy.id).unread,
                state: sure(progress.get(sibling.copy.id)).state,
              },
            ];
      }),
      unread: news(copy.id).unread,
      serverTime: this.clock.now().toISOString(),
    };
  }
}

/** The one by which it is due for the asker. */
function extensionShown({ schedule, extension, ownTime, viewer }: CopyAccess): CopyHead['extension'] {
  const isOwn = schedule.why.due === 'student';
  const granted = isOwn ? ownTime.get(viewer.enrolmentId) : extension;
  return granted ? { due: granted.due.toISOString(), reason: granted.reason, isOwn } : null;
}

const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString());
