import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { ReachView, ReleaseMode } from '@jigsaw/contract/release';
import type { GroupSetId } from '@jigsaw/core/ids';
import { sure } from '@jigsaw/core/lists';
import { OptionCard, OptionCards, Sentence } from '../form/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { ButtonLink, Choice, Emblem, hueOfGroup, Muted, Part, Small, Tag } from '../look/index.js';
import type { ReleaseTarget } from './releaseTarget.js';
import { toClass, toggleGroup, toSet, withMode } from './releaseTarget.js';

const Toggles = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
  button {
    width: 36px;
    height: 36px;
    padding: 0;
    border: 1px solid transparent;
    border-radius: var(--r-1);
    background: none;
    display: grid;
    place-items: center;
    cursor: pointer;
  }
  button[aria-pressed='true'] {
    background: var(--hue-tint);
    border-color: var(--hue);
  }
  button:disabled {
    cursor: default;
  }
`;
const Outside = styled.details`
  summary {
    cursor: pointer;
    width: fit-content;
  }
  li {
    padding: 3px 0;
  }
`;

const modes: readonly {
  readonly id: ReleaseMode;
  readonly name: string;
  readonly says: (groups: number) => string;
}[] = [
  {
    id: 'own',
    name: 'One private copy each',
    says: (groups) => `${groups > 0 ? `${groups} copies` : 'A copy a group'}, each to itself`,
  },
  {
    id: 'read-along',
    name: 'Groups read each other',
    says: (groups) => `${groups > 0 ? `${groups} copies` : 'A copy a group'}, open to all of them`,
  },
  { id: 'common', name: 'One copy for all', says: () => 'Everybody in one place' },
];
const outsiderRules = [
  { id: 'hidden', label: 'learn nothing of it' },
  { id: 'listed', label: 'see that it exists, locked' },
] as const;

interface WhoPartProps {
  readonly target: ReleaseTarget;
  readonly kind: KindOnPages | undefined;
  readonly allowed: readonly ReleaseMode[];
  readonly sets: readonly GroupSetView[];
  readonly reach: ReachView | undefined;
  readonly isReleased: boolean;
  readonly onChange: (target: ReleaseTarget) => void;
}

/** In which way, to which set, to which of its groups, and what the others learn. */
export function WhoPart({ target, kind, allowed, sets, reach, isReleased, onChange }: WhoPartProps) {
  const groups = reach?.groups ?? [];
  const inside = groups.filter((group) => group.isIn);
  const outside = reach?.outside ?? [];
  const empty = inside.filter((group) => group.members === 0);
  const all = groups.map((group) => group.groupId);
  const isClass = target.to?.kind === 'class';
  return (
    <Part>
      <header>
        <h2>Who</h2>
        <p>
          {!reach
            ? 'Choose a group set'
            : isClass
              ? `The class, ${reach.students} students`
              : `${inside.length} of ${groups.length} groups, ${reach.students} students`}
        </p>
      </header>
      <div>
        <OptionCards
          aria-label="In which way"
          value={target.mode}
          onChange={(mode) => onChange(withMode(target, mode as ReleaseMode))}
          isDisabled={isReleased}
        >
          {modes.map((mode) => (
            <OptionCard key={mode.id} value={mode.id} isDisabled={isReleased || !allowed.includes(mode.id)}>
              <b>{mode.name}</b>
              <Small>
                {allowed.includes(mode.id)
                  ? mode.says(target.mode === mode.id ? inside.length : 0)
                  : `Not for this ${kind?.word.toLowerCase() ?? 'kind'}`}
              </Small>
            </OptionCard>
          ))}
        </OptionCards>
        {sets.length === 0 && (
          <p>
            There is no group set yet. <ButtonLink to="../groups/new">Make a group set</ButtonLink>
          </p>
        )}
        <OptionCards
          aria-label="Released to"
          value={target.to === null ? null : target.to.kind === 'class' ? 'class' : target.to.setId}
          onChange={(value) =>
            onChange(value === 'class' ? toClass(target) : toSet(target, value as GroupSetId))
          }
          isDisabled={isReleased}
        >
          {sets.map((set) => (
            <OptionCard key={set.id} value={set.id}>
              <b>{set.name}</b>
              <Small>{set.groupCount} groups</Small>
            </OptionCard>
          ))}
          {allowed.includes('common') && (
            <OptionCard value="class">
              <b>The whole class</b>
              <Small>One copy, also for whoever is in no group</Small>
            </OptionCard>
          )}
        </OptionCards>
        {groups.length > 0 && (
          <Toggles role="group" aria-label="Groups it is released to">
            {groups.map((group) => (
              <button
                key={group.groupId}
                type="button"
                aria-pressed={group.isIn}
                aria-label={group.name}
                title={group.name}
                style={hueOfGroup(group.number)}
                onClick={() => onChange(toggleGroup(target, group.groupId, all))}
              >
                <Emblem
                  number={group.number}
                  size={26}
                  look={!group.isIn ? 'line' : group.members === 0 ? 'dash' : 'solid'}
                />
              </button>
            ))}
            <Small>
              {inside.length === groups.length
                ? 'Press a group to leave it out'
                : `${groups.length - inside.length} left out`}
            </Small>
          </Toggles>
        )}
        <div className="row">
          {outside.length > 0 && (
            <Tag $look="needs">
              {outside.length} {target.outsiders === 'hidden' ? 'see nothing' : 'see it locked'}
            </Tag>
          )}
          {empty.length > 0 && (
            <Tag $look="warn">
              {empty.length === 1 ? `${sure(empty[0]).name} is empty` : `${empty.length} groups are empty`}
            </Tag>
          )}
        </div>
        {outside.length > 0 && (
          <Outside>
            <summary>Who is outside, and why</summary>
            <ul>
              {outside.slice(0, 40).map((person, at) => (
                <li key={at}>
                  <b>{person.name}</b> <Muted>{person.why.slice(1, 2).join(' ')}</Muted>
                </li>
              ))}
              {outside.length > 40 && <li>and {outside.length - 40} more</li>}
            </ul>
          </Outside>
        )}
        {!isClass && (
          <Sentence>
            Others in the class
            <Choice
              label="What others learn"
              isLabelHidden
              value={target.outsiders}
              choices={outsiderRules}
              onChange={(outsiders) => onChange({ ...target, outsiders })}
            />
          </Sentence>
        )}
      </div>
    </Part>
  );
}
