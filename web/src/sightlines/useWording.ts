import { useMemo } from 'react';
import type { SightlinesView } from '@jigsaw/contract/sightlines';
import type { Wording } from '@jigsaw/core/release';
import { useCourse } from '../course/index.js';

/** What things are called, and when, in the sentences that say why. */
export function useWording(view: SightlinesView): Wording {
  const { dates } = useCourse();
  return useMemo(() => {
    const groups = new Map(
      view.sets.flatMap((set) => set.groups.map(({ groupId, name }) => [groupId as string, name])),
    );
    const sets = new Map(view.sets.map(({ setId, name }) => [setId as string, name]));
    const audiences = new Map(
      view.activities.flatMap(({ release }) =>
        (release?.audience.include ?? []).flatMap((entry) =>
          entry.kind === 'audience' ? [[entry.audienceId as string, entry.name] as const] : [],
        ),
      ),
    );
    return {
      dateTime: (at) => dates.dateTime(new Date(at).toISOString()),
      groupName: (id) => groups.get(id) ?? 'an archived group',
      setName: (id) => sets.get(id) ?? 'an archived set',
      audienceName: (id) => audiences.get(id) ?? 'a saved audience',
    };
  }, [view, dates]);
}
