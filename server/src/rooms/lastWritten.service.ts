import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { LastWritten } from '@jigsaw/contract/rooms';
import type { GroupId } from '@jigsaw/core/ids';
import { keyedBy, sure } from '@jigsaw/core/lists';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { Gate, isOut } from '../release/index.js';
import { enterRoom } from './entering.js';
import { News } from './news.service.js';

const mostItems = 12;
const mostLetters = 140;

/** What was written last in one room, for those who are in it or may look into it. */
@Injectable()
export class LastWrittenService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly gate: Gate,
    private readonly news: News,
    private readonly clock: Clock,
  ) {}

  /** @throws not-found for a group that is not theirs to look into, too. */
  async read(person: SignedIn, groupId: GroupId): Promise<LastWritten> {
    const viewer = await enterRoom(this.dataSource.manager, this.viewers, person, groupId);
    const { entered } = await this.gate.enterAll(person, viewer.courseId, { group: groupId });
    const now = this.clock.now();
    const accessTo = keyedBy(
      entered.filter((access) => access.copy.groupId === groupId && isOut(access, now)),
      ({ copy }) => copy.id,
    );
    const items = await this.news.lastItems([...accessTo.values()], mostItems);
    return {
      items: items.map(({ copyId, at, excerpt, authorId, by, isNew }) => {
        const { activity } = sure(accessTo.get(copyId));
        return {
          copyId,
          kind: activity.kind,
          title: activity.title,
          at: at.toISOString(),
          by,
          byYou: authorId === viewer.enrolmentId,
          excerpt: excerpt.length > mostLetters ? `${excerpt.slice(0, mostLetters).trimEnd()}…` : excerpt,
          isNew,
        };
      }),
    };
  }
}
