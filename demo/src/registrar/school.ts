import { readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';

const Role = z.enum(['student', 'teacher', 'aide']);
export const Enrolled = z.strictObject({
  name: z.string().trim().min(1, 'A name is needed.'),
  /** Ends the name, or is ''. */
  familyName: z.string().trim().default(''),
  email: z.string().trim().includes('@', { error: 'An address is needed.' }),
  number: z.string().trim().default(''),
  reading: z.string().trim().default(''),
  role: Role.default('student'),
  /** The id of a section; null: of none. */
  section: z.string().nullable().default(null),
});
export type Enrolled = z.output<typeof Enrolled>;

export const SchoolCourse = z.strictObject({
  code: z.string().min(1),
  title: z.string(),
  sections: z.array(z.strictObject({ id: z.string(), title: z.string() })),
  people: z.array(Enrolled),
});
export type SchoolCourse = z.output<typeof SchoolCourse>;

/** How the registrar behaves: as it should, not at all, or without sense. */
export const Mood = z.enum(['well', 'away', 'nonsense']);
export type Mood = z.infer<typeof Mood>;

const Kept = z.strictObject({ courses: z.array(SchoolCourse), mood: Mood });

/** What a made-up school's registrar knows. Kept in a file, if it is given one, so that it outlives a restart. */
export class School {
  private courses = new Map<string, SchoolCourse>();
  private currentMood: Mood = 'well';

  constructor(private readonly file: string | null = null) {
    const kept = file === null ? null : read(file);
    if (!kept) return;
    this.courses = new Map(kept.courses.map((course) => [course.code, course]));
    this.currentMood = kept.mood;
  }

  get mood(): Mood {
    return this.currentMood;
  }

  set mood(mood: Mood) {
    this.currentMood = mood;
    this.keep();
  }

  list(): readonly SchoolCourse[] {
    return [...this.courses.values()];
  }

  find(code: string): SchoolCourse | undefined {
    return this.courses.get(code);
  }

  put(course: SchoolCourse): void {
    this.courses.set(course.code, course);
    this.keep();
  }

  /** Someone new, or known by their address and told anew. */
  enrol(code: string, person: Enrolled): void {
    this.change(code, (people) => [...people.filter((each) => each.email !== person.email), person]);
  }

  drop(code: string, email: string): void {
    this.change(code, (people) => people.filter((each) => each.email !== email));
  }

  seat(code: string, email: string, section: string | null): void {
    this.change(code, (people) => people.map((each) => (each.email === email ? { ...each, section } : each)));
  }

  forget(): void {
    this.courses.clear();
    this.currentMood = 'well';
    this.keep();
  }

  private change(code: string, next: (people: SchoolCourse['people']) => SchoolCourse['people']): void {
    const course = this.courses.get(code);
    if (course) this.put({ ...course, people: next(course.people) });
  }

  private keep(): void {
    if (this.file !== null)
      writeFileSync(this.file, JSON.stringify({ courses: this.list(), mood: this.mood }));
  }
}

function read(file: string): z.output<typeof Kept> | null {
  try {
    return Kept.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    return null; // none yet, or half written: the school begins anew
  }
}
