import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Done } from '@jigsaw/contract/common';
import type { AnswerStop } from '@jigsaw/contract/rooms';
import type { CourseId } from '@jigsaw/core/ids';
import type { StopSubject } from '@jigsaw/core/rooms';
import { subjectOf, upToOf } from '@jigsaw/core/rooms';
import { Viewers } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { problems } from '../platform/problems.js';
import { RoomLinesService } from './roomLines.service.js';
import { StopAnswerRow } from './rooms.rows.js';

const done: Done = { done: true };

/** What staff say to the stops of their rounds. It changes nothing for anyone else, and no one is told. */
@Injectable()
export class StopsService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly roomLines: RoomLinesService,
    private readonly clock: Clock,
  ) {}

  /** Where the room does not need it any more there is nothing to remember.
   * @throws not-found for a room that is not theirs to look into. */
  async answer(
    person: SignedIn,
    courseId: CourseId,
    { groupId, code, subjectId, upTo, said }: AnswerStop,
  ): Promise<Done> {
    const { enrolmentId } = await this.viewers.staff(person, courseId, 'read-course');
    const { lines } = await this.roomLines.list(person, courseId);
    const line = lines.find(({ group }) => group.id === groupId);
    if (!line) throw problems.notFound();
    const rows = this.dataSource.getRepository(StopAnswerRow);
    const key = { enrolmentId, groupId, code, subjectId: subjectId as StopSubject };
    if (said === null) {
      await rows.delete(key);
      return done;
    }
    const all = [...line.needs, ...line.answered.map(({ need }) => need)];
    const need = all.find((each) => each.code === code && subjectOf(each) === subjectId);
    if (!need) return done;
    // What came after it was shown stays open, and so does what is yet to come.
    const covered = new Date(Math.min(Date.parse(upTo), Date.parse(upToOf(need))));
    await rows.upsert({ ...key, said, upTo: covered, at: this.clock.now() }, [
      'enrolmentId',
      'groupId',
      'code',
      'subjectId',
    ]);
    return done;
  }
}
