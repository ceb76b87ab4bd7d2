import type { GroupSetView } from '@jigsaw/contract/sets';
import type { ImportPreview } from '@jigsaw/contract/import';
import type { Client } from './client.js';

/** A class file, as it is. */
export async function importPeople(
  instructor: Client,
  courseId: string,
  csv: string,
  role: string,
  fileName: string,
): Promise<void> {
  await importFrom(
    instructor,
    courseId,
    { kind: 'file', fileName, contentBase64: Buffer.from(csv).toString('base64') },
    role,
  );
}

export async function importPaste(
  instructor: Client,
  courseId: string,
  text: string,
  role: string,
): Promise<void> {
  await importFrom(instructor, courseId, { kind: 'paste', text }, role);
}

async function importFrom(instructor: Client, courseId: string, source: object, role: string): Promise<void> {
  const preview = await instructor.post<ImportPreview>(`courses/${courseId}/roster/preview`, {
    source,
    role,
    meanings: null,
  });
  await instructor.post(`courses/${courseId}/roster/import`, {
    source,
    role,
    meanings: preview.columns.map((column) => column.meaning),
    leaveOutLines: [],
    fingerprint: preview.fingerprint,
  });
}

export const invite = (instructor: Client, courseId: string) =>
  instructor.post(`courses/${courseId}/roster/invitations`, { enrolmentIds: null });

export async function makeSet(
  instructor: Client,
  courseId: string,
  name: string,
  shape: object,
  capacity: number | null,
  names: string[],
): Promise<GroupSetView> {
  return instructor.post<GroupSetView>(`courses/${courseId}/sets`, {
    name,
    shape,
    capacity,
    pattern: `${name} {n}`,
    names,
  });
}
