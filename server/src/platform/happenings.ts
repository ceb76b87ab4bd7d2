import { Injectable } from '@nestjs/common';
import type { CourseId } from '@jigsaw/core/ids';
import type { Concerns } from '@jigsaw/core/release';

/** What was committed in a course; `copies` as far as it is about some. */
export interface Happening {
  readonly courseId: CourseId;
  readonly type: string;
  readonly copies: Pick<NonNullable<Concerns['copies']>, 'releaseId' | 'copyIds'> | null;
}

export interface HappeningsListener {
  happened(happening: Happening): void;
  /** No one knows what was missed. */
  missed(): void;
}

/** Tells what is kept in memory that it may be out of date: at once after a commit of this process, before its answer goes out, and of other
 * processes as soon as the database tells of theirs. */
@Injectable()
export class Happenings {
  private readonly listeners: HappeningsListener[] = [];

  listen(listener: HappeningsListener): void {
    this.listeners.push(listener);
  }

  tell(happening: Happening): void {
    for (const listener of this.listeners) listener.happened(happening);
  }

  missed(): void {
    for (const listener of this.listeners) listener.missed();
  }
}
