import { stringify } from 'csv-stringify/sync';
import { strToU8, zipSync } from 'fflate';
import { sure } from '@jigsaw/core/lists';
import type { Enrolled, SchoolCourse } from './school.js';

/** The course as a OneRoster 1.1 CSV bundle: each section is a class; anyone who sits in none is enrolled in the course's own. */
export function bundleOf({ code, title, sections, people }: SchoolCourse, at: Date): Uint8Array {
  const now = at.toISOString();
  const own = { id: `class-${code}`, title };
  const isInNone = (person: Enrolled) =>
    person.section === null || !sections.some((section) => section.id === person.section);
  const classes = [...sections, ...(people.some(isInNone) && sections.length === 0 ? [own] : [])];
  const idOf = (person: Enrolled) => `user-${person.email.toLowerCase()}`;
  const familyOf = ({ name, familyName }: Enrolled) =>
    familyName !== '' && name.endsWith(` ${familyName}`) ? familyName : '';
  const givenOf = (person: Enrolled) =>
    familyOf(person) === '' ? person.name : person.name.slice(0, -familyOf(person).length - 1);
  const files = {
    'manifest.csv': [
      ['propertyName', 'value'],
      ['oneroster.version', '1.1'],
      ...['classes', 'enrollments', 'users'].map((file) => [`file.${file}`, 'bulk']),
    ],
    'classes.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'title', 'classCode', 'classType'],
      ...classes.map((each) => [each.id, 'active', now, each.title, code, 'scheduled']),
    ],
    'users.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'enabledUser', 'role', 'username', 'givenName', 'familyName', 'identifier', 'email', 'metadata.reading'],
      ...people.map((person) => [idOf(person), 'active', now, 'true', person.role, person.email, givenOf(person), familyOf(person), person.number, person.email, person.reading]),
    ],
    'enrollments.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'classSourcedId', 'userSourcedId', 'role'],
      ...people.map((person) => [`in-${code}-${person.email}`, 'active', now, isInNone(person) ? own.id : sure(person.section), idOf(person), person.role]),
    ],
  }; // prettier-ignore
  return zipSync(
    Object.fromEntries(Object.entries(files).map(([name, rows]) => [name, strToU8(stringify(rows))])),
  );
}
