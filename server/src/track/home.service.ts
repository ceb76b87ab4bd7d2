import { Injectable } from '@nestjs/common';
import type { Home } from '@jigsaw/contract/track';
import type { CourseId } from '@jigsaw/core/ids';
import { CoursesService } from '../course/index.js';
import type { SignedIn } from '../identity/index.js';
import { MessagesService } from '../messages/index.js';
import { RoomsService } from '../rooms/index.js';
import { TrackService } from './track.service.js';

/** Who has more courses than these looks into the older ones by themselves. */
const mostCourses = 20;
const mostDue = 30;

/** What waits for someone in all their courses, each asked as its own pages ask it. */
@Injectable()
export class HomeService {
  constructor(
    private readonly courses: CoursesService,
    private readonly track: TrackService,
    private readonly rooms: RoomsService,
    private readonly messages: MessagesService,
  ) {}

  async read(person: SignedIn): Promise<Home> {
    const courses = (await this.courses.list(person)).courses.slice(0, mostCourses);
    const home: Home = { courses: [], due: [] };
    // One course after the other: a page that someone begins with is not to take the connections of those who work.
    for (const { id: courseId, role } of courses) {
      const figures = await this.track.figures(person, courseId);
      const { unread: messages } = await this.messages.count(person, courseId);
      home.courses.push({ courseId, figures, messages });
      if (role === 'student') home.due.push(...(await this.dueIn(person, courseId)));
    }
    home.due.sort((one, other) => dueTime(one) - dueTime(other));
    return { ...home, due: home.due.slice(0, mostDue) };
  }

  private async dueIn(person: SignedIn, courseId: CourseId): Promise<Home['due']> {
    const { rooms, common } = await this.rooms.list(person, courseId);
    const items = [
      ...rooms.flatMap(({ group, items: own }) => own.map((item) => ({ item, groupName: group.name }))),
      ...common.map((item) => ({ item, groupName: null })),
    ];
    return items
      .filter(({ item }) => item.progress.owes)
      .map(({ item: { copyId, title, due, isExtended }, groupName }) => ({
        courseId,
        copyId,
        title,
        due,
        isExtended,
        groupName,
      }));
  }
}

const dueTime = ({ due }: Home['due'][number]): number =>
  due === null ? Number.MAX_SAFE_INTEGER : Date.parse(due);
