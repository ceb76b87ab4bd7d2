import type { CheckFound } from '@jigsaw/contract/checks';
import type { ActivityView, ReleasedTo } from '@jigsaw/contract/release';
import { unreachable } from '@jigsaw/core/ids';
import { counted, namesTogether } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, ButtonLink } from '../look/index.js';
import { useAct } from '../page/index.js';
import type { CheckNames } from '../checks/index.js';
import { backToWas, useChangeManyMutation, useChangeReachMutation, useExtendMutation } from './releaseApi.js';

interface CheckFixProps {
  readonly found: CheckFound;
  readonly names: CheckNames;
  readonly activityOf: (id: string) => ActivityView | undefined;
  /** The activity that is open already: nothing leads to it. */
  readonly here?: string;
}

/** What mends it: an act with its way back, or the place where it is mended. */
export function CheckFix({ found, names, activityOf, here }: CheckFixProps) {
  const { course } = useCourse();
  const inCourse = (path: string) => `/c/${course.id}/${path}`;
  const compose = (says: string, activityId: string) =>
    activityId === here ? null : <ButtonLink to={inCourse(`release/${activityId}`)}>{says}</ButtonLink>;
  switch (found.code) {
    case 'groups-left-out': {
      const activity = activityOf(found.activityId);
      return activity?.release ? <LetIn activity={activity} found={found} names={names} /> : null;
    }
    case 'due-together': {
      const later = activityOf(found.activityIds[1]);
      return later ? <MoveLater activity={later} /> : null;
    }
    case 'due-before-open': {
      const activity = activityOf(found.activityId);
      return activity ? <NoExtension activity={activity} who={found.who} names={names} /> : null;
    }
    case 'reaches-no-one':
      return found.audienceId === null ? (
        compose('Edit who gets it', found.activityId)
      ) : (
        <ButtonLink to={inCourse(`audiences/${found.audienceId}`)}>
          Edit {names.audience(found.audienceId)}
        </ButtonLink>
      );
    case 'unplaced':
      return (
        <ButtonLink to={inCourse(`groups/${found.setId}`)}>
          Place {counted(found.students.count, 'student')}
        </ButtonLink>
      );
    case 'leads-none':
      return <ButtonLink to={inCourse('groups')}>Choose the groups they lead</ButtonLink>;
    case 'live-too-late':
      return compose('Edit the dates', found.activityId);
    case 'rubric-points':
      return compose(found.points === null ? 'Give it points' : 'Edit points or rubric', found.activityId);
    case 'typed-placeholder':
    case 'line-for-no-one':
      return compose('Edit the text', found.activityId);
    case 'cannot-be-done':
      return compose('Edit the requirement', found.activityId);
    default:
      return unreachable(found);
  }
}

interface LetInProps {
  readonly activity: ActivityView;
  readonly found: Extract<CheckFound, { code: 'groups-left-out' }>;
  readonly names: CheckNames;
}
function LetIn({ activity, found: { setId, groupIds }, names }: LetInProps) {
  const { release } = activity;
  const who = groupIds.length <= 2 ? namesTogether(groupIds.map(names.group)) : counted(groupIds.length, 'group'); // prettier-ignore
  const change = useAct(useChangeReachMutation(), {
    says: (_now, { body }) => (body.to === release?.to ? `As it was before` : `“${activity.title}” now reaches ${who} too`), // prettier-ignore
    inverse: backToWas,
  });
  if (!release) return null;
  const was = { to: release.to, outsiders: release.outsiders };
  const to: ReleasedTo = {
    ...release.to,
    include: [...release.to.include, ...groupIds.map((groupId) => ({ kind: 'group' as const, setId, groupId }))], // prettier-ignore
  };
  return (
    <Button
      isDisabled={change.isBusy}
      onPress={() => void change({ activityId: activity.id, body: { ...was, to, was } })}
    >
      Release to {who} too
    </Button>
  );
}

function MoveLater({ activity: { id, version, title } }: { readonly activity: ActivityView }) {
  const { course } = useCourse();
  const back = useAct(useChangeManyMutation(), { says: () => `“${title}” is due when it was before` });
  const move = useAct(useChangeManyMutation(), {
    says: () => `“${title}” is due a day later`,
    undo:
      ({ activities }) =>
      () =>
        back({
          courseId: course.id,
          activities: activities.map((each) => ({ id: each.id, version: each.version })),
          act: { kind: 'move', days: -1 },
        }),
  });
  const act = { kind: 'move', days: 1 } as const;
  return (
    <Button
      isDisabled={move.isBusy}
      onPress={() => void move({ courseId: course.id, activities: [{ id, version }], act })}
    >
      Move “{title}” a day later
    </Button>
  );
}

interface NoExtensionProps {
  readonly activity: ActivityView;
  readonly who: Extract<CheckFound, { code: 'due-before-open' }>['who'];
  readonly names: CheckNames;
}
function NoExtension({ activity, who, names }: NoExtensionProps) {
  const name = 'groupId' in who ? names.group(who.groupId) : names.person(who.enrolmentId);
  const found =
    'groupId' in who
      ? activity.extensions.find((each) => each.groupId === who.groupId)
      : activity.studentExtensions.find((each) => each.enrolmentId === who.enrolmentId);
  const grant = found && { due: found.due, closes: found.closes, reason: found.reason };
  const extend = useAct(useExtendMutation(), {
    says: (_activity, asked) => (asked.grant ? `${name} has its date again` : `${name} has the date of everyone now`),
    inverse: (asked) => ({ ...asked, grant: asked.grant ? null : (grant ?? null) }),
  }); // prettier-ignore
  return (
    <Button
      isDisabled={extend.isBusy}
      onPress={() => void extend({ activityId: activity.id, to: who, grant: null })}
    >
      Remove extension of {name}
    </Button>
  );
}
