import type { BoardStudent } from '@jigsaw/contract/placing';
import { fold } from '@jigsaw/core/text';

/** Folded once: a class of 640 is searched with every key. */
const folded = new WeakMap<BoardStudent, string>();
function foldedName(student: BoardStudent): string {
  const known = folded.get(student) ?? fold(`${student.name} ${student.reading ?? ''}`);
  folded.set(student, known);
  return known;
}

/** Students whose name, or its reading, has every word that is sought, without accents and case. */
export function matching(students: readonly BoardStudent[], sought: string): readonly BoardStudent[] {
  const words = fold(sought).split(/\s+/).filter(Boolean);
  if (words.length === 0) return students;
  return students.filter((student) => {
    const text = foldedName(student);
    return words.every((word) => text.includes(word));
  });
}
