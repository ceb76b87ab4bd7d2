import type { ImportPreview } from '@jigsaw/contract/import';
import { sure } from '@jigsaw/core/lists';
import type { Client } from './client.js';
import type { MadeStudent } from './people.js';
import { benches, domain, staff } from './people.js';
import type { Enrolled, School } from './registrar/index.js';

const sectionId = (section: MadeStudent['section']) =>
  section === 'Tuesday lab' ? 'fer220-tue' : 'fer220-thu';

/** The course as the registrar has it, without its people. */
export const listing = {
  code: 'FER 220',
  title: 'Applied Fermentation',
  sections: [
    { id: 'fer220-tue', title: 'Tuesday lab' },
    { id: 'fer220-thu', title: 'Thursday lab' },
  ],
};

const [tomas, priya] = staff.assistants;
const nothingMore = { familyName: '', number: '', reading: '' };
export const teachers: readonly Enrolled[] = [
  {
    ...nothingMore,
    name: staff.instructor.name,
    familyName: staff.instructor.family,
    email: staff.instructor.email,
    role: 'teacher',
    section: null,
  },
  { ...nothingMore, name: tomas.name, email: tomas.email, role: 'aide', section: 'fer220-tue' },
  { ...nothingMore, name: priya.name, email: priya.email, role: 'aide', section: 'fer220-thu' },
];

export const asEnrolled = (
  { name, family, reading, section }: MadeStudent,
  email: string,
  number: string,
): Enrolled => ({
  name,
  familyName: family,
  email,
  number,
  reading,
  role: 'student',
  section: sectionId(section),
});

/** Brings the course into step with the registrar, as an instructor does who agrees with all it proposes. */
export async function sync(instructor: Client, courseId: string): Promise<void> {
  const source = { kind: 'registrar', course: listing.code, setName: 'Lab sections' };
  const preview = await instructor.post<ImportPreview>(`courses/${courseId}/roster/preview`, {
    source,
    role: 'student',
    meanings: null,
  });
  await instructor.post(`courses/${courseId}/roster/import`, {
    source,
    role: 'student',
    meanings: preview.columns.map((column) => column.meaning),
    leaveOutLines: [],
    drop: preview.missing.flatMap((person) => (person.isDropped ? [person.enrolmentId] : [])),
    fingerprint: preview.fingerprint,
  });
}

/** What the registrar has written down since the last sync: someone joins, someone leaves, someone changes labs. */
export function happenSince(school: School, emailOf: (student: MadeStudent) => string): void {
  const joins: Enrolled = {
    ...nothingMore,
    name: 'Ottoline Břeclav',
    familyName: 'Břeclav',
    email: `ottoline.breclav@${domain}`,
    number: 'fe-0477',
    role: 'student',
    section: 'fer220-thu',
  };
  school.enrol(listing.code, joins);
  school.seat(listing.code, emailOf(sure(benches.Stoneware[1])), sectionId('Tuesday lab'));
  school.drop(listing.code, emailOf(sure(benches.Tun[4])));
}
