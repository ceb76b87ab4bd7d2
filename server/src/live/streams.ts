import type { OnApplicationBootstrap, OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { PinoLogger } from 'nestjs-pino';
import { DataSource } from 'typeorm';
import type { Viewer } from '@jigsaw/core/course';
import type { CourseId, SessionId } from '@jigsaw/core/ids';
import { Viewers } from '../course/index.js';
import { SessionService } from '../identity/index.js';
import { Clock } from '../platform/clock.js';
import { copiesInView } from '../release/index.js';
import { Changes } from './changes.js';
import { CourseStreams } from './courseStreams.js';
import type { Stream } from './stream.js';

const beatMs = 25_000;
/** Of so many pages that one change concerns, this many ask again in a second: it is told to them one after the other. */
const gatherMs = 40;
const betweenMs = 3;

/** All open pages of this process. */
@Injectable()
export class Streams implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly courses = new Map<CourseId, CourseStreams>();
  private beat: NodeJS.Timeout | null = null;
  private turn = 0;

  constructor(
    private readonly dataSource: DataSource,
    private readonly viewers: Viewers,
    private readonly sessions: SessionService,
    private readonly clock: Clock,
    private readonly changes: Changes,
    private readonly log: PinoLogger,
  ) {}

  onApplicationBootstrap(): void {
    this.changes.tell({
      changed: (change) => this.courses.get(change.courseId)?.take(change),
      sessionEnded: (ended) => this.endWhere((sessionId) => sessionId === ended),
      gap: () => this.endWhere(() => true),
    });
    this.beat = setInterval(() => void this.beatOnce(), beatMs);
    this.beat.unref();
  }

  onApplicationShutdown(): void {
    if (this.beat) clearInterval(this.beat);
    this.endWhere(() => true);
  }

  get count(): number {
    let count = 0;
    for (const course of this.courses.values()) count += course.size;
    return count;
  }

  add(viewer: Viewer, stream: Stream): void {
    const { courseId } = viewer;
    const own =
      this.courses.get(courseId) ??
      new CourseStreams(
        courseId,
        {
          viewers: (course, enrolmentIds) => this.viewers.again(course, enrolmentIds),
          copies: (releaseId, changes) => copiesInView(this.dataSource.manager, releaseId, changes),
          now: () => this.clock.now().getTime(),
        },
        (error) => this.log.warn({ err: error }, 'live changes could not be passed on'),
      );
    own.add(viewer, stream);
    this.courses.set(courseId, own);
  }

  remove({ courseId, enrolmentId }: Viewer, stream: Stream): void {
    const own = this.courses.get(courseId);
    own?.remove(enrolmentId, stream);
    if (own?.size === 0) this.courses.delete(courseId);
  }

  /** How long the next stream gathers what it is told: when hundreds listen, they do not all ask again in one moment. */
  gatherMs(courseId: CourseId): number {
    const many = this.courses.get(courseId)?.size ?? 1;
    this.turn = (this.turn + 1) % many;
    return gatherMs + this.turn * betweenMs;
  }

  /** Every line is kept awake, and ends with its session, however that ended. */
  async beatOnce(): Promise<void> {
    const open = [...this.courses.values()].flatMap((course) => [...course.streams()]);
    if (open.length === 0) return;
    for (const stream of open) stream.beat();
    // Lines that are opened while this is asked are not among them.
    const asked = new Set(open.map((stream) => stream.owner.sessionId));
    try {
      const still = await this.sessions.stillOpen([...asked]);
      this.endWhere((sessionId) => asked.has(sessionId) && !still.has(sessionId));
    } catch (error) {
      this.log.warn({ err: error }, 'whose sessions are open could not be read');
    }
  }

  private endWhere(isOver: (sessionId: SessionId) => boolean): void {
    for (const [courseId, own] of [...this.courses]) {
      own.endWhere(isOver);
      if (own.size === 0) this.courses.delete(courseId);
    }
  }
}
