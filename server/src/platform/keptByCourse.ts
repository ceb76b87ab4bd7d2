import type { CourseId } from '@jigsaw/core/ids';
import type { Happenings } from './happenings.js';

interface Kept<Value> {
  readonly value: Promise<Value>;
  /** Milliseconds; null: only what happens makes it old. */
  readonly until: number | null;
}

/** Figures that are costly to count and asked for at every page, kept until something happens that may change them. What happened to some copies of one
 * release makes old what is kept of that release alone; everything else, all of the course. */
export class KeptByCourse<Value> {
  private readonly courses = new Map<CourseId, Map<string, Kept<Value>>>();

  constructor(happenings: Happenings) {
    happenings.listen({
      happened: ({ courseId, copies }) => {
        if (copies?.copyIds) this.courses.get(courseId)?.delete(copies.releaseId);
        else this.courses.delete(courseId);
      },
      missed: () => this.courses.clear(),
    });
  }

  /** @param key the id of a release, or whatever else the value hangs on as a whole.
   * @param now milliseconds.
   * @param count works it out, and says from when on time alone makes it old. */
  async get(
    courseId: CourseId,
    key: string,
    now: number,
    count: () => Promise<{ readonly value: Value; readonly until: number | null }>,
  ): Promise<Value> {
    const course = this.courses.get(courseId) ?? new Map<string, Kept<Value>>();
    this.courses.set(courseId, course);
    const known = course.get(key);
    if (known && (known.until === null || now < known.until)) return known.value;
    const counted = count();
    // Kept from the beginning of the counting: what happens meanwhile takes it away again, so that nothing old is ever put in its place.
    const entry: Kept<Value> = { value: counted.then(({ value }) => value), until: null };
    course.set(key, entry);
    try {
      const { value, until } = await counted;
      if (course.get(key) === entry) course.set(key, { value: entry.value, until });
      return value;
    } catch (error) {
      if (course.get(key) === entry) course.delete(key);
      throw error;
    }
  }
}
