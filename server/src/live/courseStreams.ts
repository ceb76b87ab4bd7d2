import type { Viewer } from '@jigsaw/core/course';
import type { CourseId, EnrolmentId, PersonId, ReleaseId, SessionId } from '@jigsaw/core/ids';
import { groupedBy } from '@jigsaw/core/lists';
import type { CopiesInView } from '@jigsaw/core/release';
import { hears } from '@jigsaw/core/release';
import type { Change } from './changes.js';
import type { Stream } from './stream.js';

/** What the database is asked: a few questions for any number of changes and of streams. */
export interface Sources {
  /** Who these are by now; who may not enter any more is not among them. */
  viewers(
    courseId: CourseId,
    enrolmentIds: readonly EnrolmentId[],
  ): Promise<ReadonlyMap<EnrolmentId, { readonly personId: PersonId; readonly viewer: Viewer }>>;
  /** The release and those of its copies that changes concern; null: it is gone. */
  copies(releaseId: ReleaseId, change: readonly Change[]): Promise<ReadonlyMap<Change, CopiesInView>>;
  now(): number;
}

interface Listening {
  viewer: Viewer;
  readonly personId: PersonId;
  readonly streams: Set<Stream>;
}

/** Of one person in one course so many pages at once listen; an older one is ended for a newer. */
export const mostPages = 20;

/** The open pages of one course, by whose they are. Who a listener is, is kept in memory and read again when something changed it, all in one
 * question; who hears of a change is worked out from that. */
export class CourseStreams {
  private readonly listening = new Map<EnrolmentId, Listening>();
  private waiting: Change[] = [];
  private work: Promise<void> | null = null;

  constructor(
    private readonly courseId: CourseId,
    private readonly sources: Sources,
    private readonly onError: (error: unknown) => void,
  ) {}

  get size(): number {
    let size = 0;
    for (const { streams } of this.listening.values()) size += streams.size;
    return size;
  }

  *streams(): Iterable<Stream> {
    for (const { streams } of this.listening.values()) yield* streams;
  }

  add(viewer: Viewer, stream: Stream): void {
    const { personId } = stream.owner;
    const own = this.listening.get(viewer.enrolmentId) ?? { viewer, personId, streams: new Set() };
    own.viewer = viewer;
    own.streams.add(stream);
    this.listening.set(viewer.enrolmentId, own);
    // Someone who sits in as them takes none of their own pages from them.
    const alike = [...own.streams].filter((each) => each.owner.sitsIn === stream.owner.sitsIn);
    const [oldest] = alike;
    if (oldest && alike.length > mostPages) this.remove(viewer.enrolmentId, oldest);
  }

  remove(enrolmentId: EnrolmentId, stream: Stream): void {
    stream.end();
    const own = this.listening.get(enrolmentId);
    own?.streams.delete(stream);
    if (own?.streams.size === 0) this.listening.delete(enrolmentId);
  }

  /** @param isOver whose session it was. */
  endWhere(isOver: (sessionId: SessionId) => boolean): void {
    for (const [enrolmentId, { streams }] of [...this.listening])
      for (const stream of [...streams]) if (isOver(stream.owner.sessionId)) this.remove(enrolmentId, stream);
  }

  private endSitIns(): void {
    for (const [enrolmentId, { streams }] of [...this.listening])
      for (const stream of [...streams]) if (stream.owner.sitsIn) this.remove(enrolmentId, stream);
  }

  /** Changes are taken in their order; those that come while others are worked out are worked out together. */
  take(change: Change): void {
    this.waiting.push(change);
    this.work ??= this.passOn().finally(() => (this.work = null));
  }

  private async passOn(): Promise<void> {
    while (this.waiting.length > 0) {
      const changes = this.waiting;
      this.waiting = [];
      try {
        await this.refresh(changes);
        const inView = await this.copiesOf(changes);
        const now = this.sources.now();
        for (const change of changes)
          for (const { viewer, streams } of this.listening.values())
            if (hears(viewer, change, inView.get(change) ?? null, now))
              for (const stream of streams) stream.tell(change.type, change.page);
      } catch (error) {
        this.onError(error);
        this.endWhere(() => true);
      }
    }
  }

  /** A person who is removed from something is named by the change, and so hears of it as who they are by now. */
  private async refresh(changes: readonly Change[]): Promise<void> {
    const moving = changes.filter(movesPeople);
    // Whether they still may is asked when the page connects again.
    if (moving.some(({ type }) => type.startsWith('roster.'))) this.endSitIns();
    if (moving.length === 0 || this.listening.size === 0) return;
    const isForFew = moving.every((change) => change.type === 'students.placed');
    const named = new Set(moving.flatMap((change) => change.enrolmentIds));
    const ids = [...this.listening.keys()].filter((id) => !isForFew || named.has(id));
    if (ids.length === 0) return;
    const found = await this.sources.viewers(this.courseId, ids);
    for (const id of ids) {
      const own = this.listening.get(id);
      if (!own) continue;
      const by = found.get(id);
      if (by?.personId === own.personId) own.viewer = by.viewer;
      else for (const stream of [...own.streams]) this.remove(id, stream);
    }
  }

  private async copiesOf(changes: readonly Change[]): Promise<ReadonlyMap<Change, CopiesInView>> {
    const about = changes.filter((change) => change.copies !== null);
    const all = new Map<Change, CopiesInView>();
    for (const [releaseId, own] of groupedBy(about, (change) => change.copies?.releaseId))
      if (releaseId !== undefined)
        for (const [change, inView] of await this.sources.copies(releaseId, own)) all.set(change, inView);
    return all;
  }
}

/** Whether it may have changed who someone is in the course: their role, their groups, those that they lead. */
const movesPeople = ({ copies, type }: Change): boolean => copies === null && !quiet.has(type);
const quiet: ReadonlySet<string> = new Set([
  'places.changed',
  'course.changed',
  'activity.drafted',
  'activity.edited',
  'activity.deleted',
  'activity.restored',
  'roster.invited',
  'note.written',
  'note.changed',
  'note.removed',
  'note.restored',
  'shelf-file.added',
  'shelf-file.changed',
  'shelf-file.removed',
  'shelf-file.restored',
  'message.sent',
  'message.removed',
  'message.restored',
]);
