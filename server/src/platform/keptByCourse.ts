import type { CourseId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import type { Happening, Happenings } from './happenings.js';

export interface CountedUntil<Value> {
  readonly value: Value;
  /** Milliseconds from when on time alone makes it old; null: only what happens does. */
  readonly until: number | null;
}

/** Who it is kept for, where it is not the same for all. */
export interface KeptFor {
  readonly whom: string;
  /** Something of theirs alone that makes it old when it changes, read before anything is counted. */
  readonly stamp: string;
}
const everyone: KeptFor = { whom: '', stamp: '' };

interface Kept<Value> {
  readonly counted: Promise<CountedUntil<Value>>;
  readonly stamp: string;
  /** As far as it is known. */
  until: number | null;
}

type MadeOld<Key> = 'all' | 'nothing' | { readonly key: Key };
const byRelease = <Key extends string>({ copies, type }: Happening): MadeOld<Key> => {
  if (type.startsWith('note.') || type.startsWith('shelf-file.') || type.startsWith('message.'))
    return 'nothing'; // what staff note to themselves, and what people share and write beside their work
  return copies?.copyIds ? { key: copies.releaseId as string as Key } : 'all';
};

/** So many courses are kept at a time; that which was asked for longest ago makes room. */
const mostCourses = 100;
/** Counted at once, so that other people's questions come in between. */
const countedAtOnce = 6;

/** Figures that are costly to count and asked for at every page, kept by what they hang on (a release) until something happens that may change them. Unless it
 * is said otherwise, what happened to some copies of one release makes old what is kept of that release; everything else, all of the course. */
export class KeptByCourse<Key extends string, Value> {
  private readonly courses = new Map<CourseId, Map<Key, Map<string, Kept<Value>>>>();

  /** @param madeOld what of a course something that happened makes old. */
  constructor(happenings: Happenings, madeOld: (happening: Happening) => MadeOld<Key> = byRelease) {
    happenings.listen({
      happened: (happening) => {
        const old = madeOld(happening);
        if (old === 'all') this.courses.delete(happening.courseId);
        else if (old !== 'nothing') this.courses.get(happening.courseId)?.delete(old.key);
      },
      missed: () => this.courses.clear(),
    });
  }

  /** @param now milliseconds.
   * @param count works out some that are not kept: as many questions for six as for one. */
  async all(
    courseId: CourseId,
    keys: readonly Key[],
    now: number,
    count: (missing: readonly Key[]) => Promise<ReadonlyMap<Key, CountedUntil<Value>>>,
    { whom, stamp }: KeptFor = everyone,
  ): Promise<ReadonlyMap<Key, Value>> {
    const course = this.ofCourse(courseId);
    const found = keys.map((key) => {
      const known = course.get(key)?.get(whom);
      const isOld = known?.stamp !== stamp || (known.until !== null && now >= known.until);
      return { key, counted: isOld ? null : known.counted };
    });
    const missing = found.flatMap(({ key, counted }) => (counted ? [] : [key]));
    const fresh = new Map<Key, Promise<CountedUntil<Value>>>();
    let before: Promise<unknown> = Promise.resolve();
    for (let at = 0; at < missing.length; at += countedAtOnce) {
      const some = missing.slice(at, at + countedAtOnce);
      const counting = at === 0 ? count(some) : before.then(() => count(some));
      before = counting;
      // Kept from when the counting begins: what happens meanwhile takes it away again, so that nothing old is ever put in its place.
      for (const key of some) {
        const counted = counting.then((all) => sure(all.get(key)));
        fresh.set(key, counted);
        keep(course, key, whom, { counted, stamp, until: null });
      }
    }
    const wanted = found.map(async ({ key, counted }) => {
      const { value } = await (counted ?? sure(fresh.get(key)));
      return [key, value] as const;
    });
    return new Map(await Promise.all(wanted));
  }

  private ofCourse(courseId: CourseId): Map<Key, Map<string, Kept<Value>>> {
    const course = this.courses.get(courseId) ?? new Map<Key, Map<string, Kept<Value>>>();
    this.courses.delete(courseId); // asked for last, it stands last
    this.courses.set(courseId, course);
    const [oldest] = this.courses.keys();
    if (oldest !== undefined && this.courses.size > mostCourses) this.courses.delete(oldest);
    return course;
  }
}

function keep<Key, Value>(
  course: Map<Key, Map<string, Kept<Value>>>,
  key: Key,
  whom: string,
  kept: Kept<Value>,
): void {
  const all = course.get(key) ?? new Map<string, Kept<Value>>();
  course.set(key, all);
  all.set(whom, kept);
  kept.counted.then(
    ({ until }) => (kept.until = until),
    () => all.get(whom) === kept && all.delete(whom),
  );
}
