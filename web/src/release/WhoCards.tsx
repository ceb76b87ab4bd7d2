import type { GroupSetView } from '@jigsaw/contract/sets';
import type { GroupSetId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { audiencesOf, setsOfAudience } from '@jigsaw/core/release';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { sayReach, useListAudiencesQuery } from '../audiences/index.js';
import { useCourse } from '../course/index.js';
import { ToggleCard, ToggleCards } from '../form/index.js';
import { Small } from '../look/index.js';
import type { ReleaseTarget } from './releaseTarget.js';
import {
  isForClass,
  isForStaff,
  toggleAudience,
  toggleClass,
  toggleSet,
  toggleStaff,
} from './releaseTarget.js';

interface WhoCardsProps {
  readonly target: ReleaseTarget;
  readonly sets: readonly GroupSetView[];
  /** Whether one copy for all can be chosen; the class and staff get no other. */
  readonly mayBeCommon: boolean;
  readonly onChange: (target: ReleaseTarget) => void;
}

/** Sets, saved audiences, the class or staff, each in or out at a press. */
export function WhoCards({ target, sets, mayBeCommon, onChange }: WhoCardsProps) {
  const { course } = useCourse();
  const list = useListAudiencesQuery(course.id);
  const audiences = list.data?.audiences ?? [];
  const refused = unshown(list);
  const audienceById = keyedBy(audiences, (audience) => audience.id as string);
  const chosen = new Set<string>([
    ...(isForClass(target) ? ['class'] : []),
    ...(isForStaff(target) ? ['staff'] : []),
    ...setsOfAudience(target.to),
    ...audiencesOf(target.to),
  ]);
  const toggle = (id: string): ReleaseTarget => {
    if (id === 'class') return toggleClass(target);
    if (id === 'staff') return toggleStaff(target);
    const audience = audienceById.get(id);
    return audience ? toggleAudience(target, audience.id) : toggleSet(target, id as GroupSetId);
  };
  return (
    <>
      {refused !== undefined && <ProblemStrip of={refused} onRetry={() => void list.refetch()} />}
      <ToggleCards
        aria-label="Released to"
        value={[...chosen]}
        onChange={(values) => {
          const id =
            values.find((value) => !chosen.has(value)) ?? [...chosen].find((each) => !values.includes(each));
          if (id !== undefined) onChange(toggle(id));
        }}
      >
        {sets.map((set) => (
          <ToggleCard key={set.id} value={set.id}>
            <b>{set.name}</b>
            <Small>{counted(set.groupCount, 'group')}</Small>
          </ToggleCard>
        ))}
        {audiences.map((audience) => {
          const isWithoutCopies = target.mode !== 'common' && audience.groups === 0;
          return (
            <ToggleCard
              key={audience.id}
              value={audience.id}
              isDisabled={isWithoutCopies && !chosen.has(audience.id)}
            >
              <b>{audience.name}</b>
              <Small>
                {isWithoutCopies
                  ? 'Audience without groups: only in one copy for all'
                  : `Audience, ${sayReach(audience)}`}
              </Small>
            </ToggleCard>
          );
        })}
        {mayBeCommon && (
          <ToggleCard value="class">
            <b>The whole class</b>
            <Small>One copy, also for students without a group</Small>
          </ToggleCard>
        )}
        {mayBeCommon && (
          <ToggleCard value="staff">
            <b>Staff only</b>
            <Small>One copy that no student sees</Small>
          </ToggleCard>
        )}
      </ToggleCards>
    </>
  );
}
