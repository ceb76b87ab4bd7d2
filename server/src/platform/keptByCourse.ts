import type { CourseId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Happenings } from './happenings.js';

export interface CountedUntil<Value> {
  readonly value: Value;
  /** Milliseconds from when on time alone makes it old; null: only what happens does. */
  readonly until: number | null;
}

/** So many courses are kept at a time; that which was asked for longest ago makes room. */
const mostCourses = 100;

/** Figures that are costly to count and asked for at every page, kept by what they hang on (a release) until something happens that may change them. What
 * happened to some copies of one release makes old what is kept of that release; everything else, all of the course. */
export class KeptByCourse<Key extends string, Value> {
  private readonly courses = new Map<CourseId, Map<Key, Promise<CountedUntil<Value>>>>();
  /** As far as they are known. */
  private readonly untils = new WeakMap<Promise<CountedUntil<Value>>, number | null>();

  constructor(happenings: Happenings) {
    happenings.listen({
      happened: ({ courseId, copies }) => {
        if (copies?.copyIds) this.courses.get(courseId)?.delete(copies.releaseId as string as Key);
        else this.courses.delete(courseId);
      },
      missed: () => this.courses.clear(),
    });
  }

  /** @param now milliseconds.
   * @param count works out all that are not kept at once: as many questions for thirty as for one. */
  async all(
    courseId: CourseId,
    keys: readonly Key[],
    now: number,
    count: (missing: readonly Key[]) => Promise<ReadonlyMap<Key, CountedUntil<Value>>>,
  ): Promise<ReadonlyMap<Key, Value>> {
    const kept = this.courses.get(courseId) ?? new Map<Key, Promise<CountedUntil<Value>>>();
    this.courses.delete(courseId); // asked for last, it stands last
    this.courses.set(courseId, kept);
    const [oldest] = this.courses.keys();
    if (oldest !== undefined && this.courses.size > mostCourses) this.courses.delete(oldest);
    const missing = keys.filter((key) => {
      const known = kept.get(key);
      const until = known && this.untils.get(known);
      return !known || (typeof until === 'number' && now >= until);
    });
    if (missing.length > 0) {
      const counting = count(missing);
      // Kept from when the counting begins: what happens meanwhile takes it away again, so that nothing old is ever put in its place.
      for (const key of missing) {
        const one = counting.then((counted) => sure(counted.get(key)));
        kept.set(key, one);
        one.then(
          ({ until }) => this.untils.set(one, until),
          () => kept.get(key) === one && kept.delete(key),
        );
      }
    }
    const wanted = keys.map(async (key) => [key, (await sure(kept.get(key))).value] as const);
    return new Map(await Promise.all(wanted));
  }
}
