import type { OutlineView } from '@jigsaw/contract/outline';
import { sure } from '@jigsaw/core/lists';
import type { Stage } from './stage.js';

/** In the order of the course; what is under no heading is everything else. */
const outline: Readonly<Record<string, readonly string[]>> = {
  'Every week': ['Bench call', 'Bench talk', 'Starter culture log', 'Ask the lab'],
  'Brine and salt': ['Salt tables', 'Salt trial', 'Brine kinetics problem sheet', 'Visit to the vinegar works'],
  'From jar to report': ['Hygiene certificate', 'Kombucha and kefir benches', 'Ferment report', 'How are your jars?'],
  'Tasting': ['Week 3 tasting critique', 'Tasting day', 'Tasting day card'],
  'After the course': ['Shelf life memo'],
}; // prettier-ignore

/** Puts what was written by now under its headings. */
export async function arrangeOutline({ instructor, courseId }: Stage): Promise<void> {
  const { activities } = await instructor.get<{ activities: { id: string; title: string }[] }>(
    `courses/${courseId}/activities`,
  );
  const idOf = new Map(activities.map(({ id, title }) => [title, id]));
  for (const [title, titles] of Object.entries(outline)) {
    const { headings } = await instructor.post<OutlineView>(`courses/${courseId}/headings`, { title });
    const headingId = sure(headings.at(-1)).id;
    for (const each of titles)
      await instructor.post(`activities/${sure(idOf.get(each))}/place`, { headingId, before: null });
  }
}
