import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Lately } from '@jigsaw/contract/rooms';
import type { GroupTag } from '@jigsaw/contract/sets';
import type { Viewer } from '@jigsaw/core/course';
import type { GroupId } from '@jigsaw/core/ids';
import { groupedBy, keyedBy, sure } from '@jigsaw/core/lists';
import { courseOf, Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Gate, isOut } from '../release/index.js';
import { groupsOfSets, groupTags } from '../sets/index.js';
import { dayIn, daysTo, sinceShown } from './days.js';
import { staffOfRoom } from './entering.js';
import { membersByName } from './members.js';
import { News } from './news.service.js';

/** What the members of one group did lately, for staff. */
@Injectable()
export class LatelyService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly news: News,
    private readonly clock: Clock,
  ) {}

  /** @throws not-found for a group that is not theirs to look into, too. */
  async read(person: SignedIn, groupId: GroupId): Promise<Lately> {
    const { manager } = this.dataSource;
    const viewer = await staffOfRoom(manager, this.viewers, person, groupId, 'read-course');
    const { courseId } = viewer;
    const now = this.clock.now();
    const { entered } = await this.gate.enterAll(person, courseId, { group: groupId });
    const out = keyedBy(entered.filter((access) => isOut(access, now)), ({ copy }) => copy.id); // prettier-ignore
    const { timeZone } = await courseOf(manager, courseId);
    const written = await this.news.writtenInCopies([...out.values()], timeZone, sinceShown(now));
    const writtenBy = groupedBy(written, (row) => row.authorId);
    const today = dayIn(timeZone, now);
    const rooms = await this.roomsOfSet(viewer, groupId);
    const at = rooms.findIndex(({ id }) => id === groupId);
    return {
      previous: rooms[at - 1] ?? null,
      next: rooms[at + 1] ?? null,
      members: (await membersByName(manager, [groupId])).map(({ enrolmentId, name, reading }) => {
        const own = writtenBy.get(enrolmentId) ?? [];
        const last = own.toSorted((a, b) => b.at.getTime() - a.at.getTime())[0];
        return {
          enrolmentId,
          name,
          reading,
          days: daysTo(
            today,
            own.flatMap(({ day, count }) => (day === null ? [] : [[day, count] as const])),
          ),
          last: last
            ? {
                at: last.at.toISOString(),
                title: sure(out.get(last.copyId)).activity.title,
                copyId: last.copyId,
              }
            : null,
        };
      }),
    };
  }

  /** In the order of their numbers. */
  private async roomsOfSet(viewer: Viewer, groupId: GroupId): Promise<readonly GroupTag[]> {
    const { manager } = this.dataSource;
    const { setId } = sure((await groupTags(manager, [groupId])).get(groupId));
    const ids = (await groupsOfSets(manager, [setId])).map((row) => row.id);
    const theirs = viewer.seesOnlyLed ? ids.filter((id) => viewer.leads.includes(id)) : ids;
    return [...(await groupTags(manager, theirs)).values()].toSorted((a, b) => a.number - b.number);
  }
}
