import { styled } from 'styled-components';
import type { GroupSetView } from '@jigsaw/contract/sets';
import type { ReachView, ReleaseMode } from '@jigsaw/contract/release';
import type { GroupId } from '@jigsaw/core/ids';
import { groupedBy, sure } from '@jigsaw/core/lists';
import { setsOfAudience } from '@jigsaw/core/release';
import { counted } from '@jigsaw/core/text';
import { OptionCard, OptionCards, Sentence } from '../form/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { ButtonLink, Choice, Emblem, hueOfGroup, Muted, Part, Small, Tag } from '../look/index.js';
import type { ReleaseTarget } from './releaseTarget.js';
import { isForClass, isForStaff, leaveOut, toggleGroup, withMode, withPerson } from './releaseTarget.js';
import { WhoCards } from './WhoCards.js';
import { NamedPart } from './NamedPart.js';

const Toggles = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
  > b {
    margin-right: 6px;
  }
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
const Fold = styled.details`
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
    says: (groups) => `${groups > 0 ? `${groups} copies` : 'A copy per group'}, each to itself`,
  },
  {
    id: 'read-along',
    name: 'Groups read each other',
    says: (groups) => `${groups > 0 ? `${groups} copies` : 'A copy per group'}, open to all of them`,
  },
  { id: 'common', name: 'One copy for all', says: () => 'Everyone in one place' },
];
const outsiderRules = [
  { id: 'hidden', label: 'see nothing' },
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

/** In which way, to which sets, to which of their groups, to single people, and what the others see. */
export function WhoPart({ target, kind, allowed, sets, reach, isReleased, onChange }: WhoPartProps) {
  const groups = reach?.groups ?? [];
  const inside = groups.filter((group) => group.isIn);
  const outside = reach?.outside ?? [];
  const several = reach?.several ?? [];
  const empty = inside.filter((group) => group.members === 0);
  const bySet = groupedBy(groups, (group) => group.setId);
  const isClass = isForClass(target);
  const isForNoStudent = isForStaff(target);
  const plainSets = new Set<string>(setsOfAudience(target.to));
  return (
    <Part>
      <header>
        <h2>Who</h2>
        <p>
          {!reach
            ? 'Choose who gets it'
            : isClass
              ? `The class, ${counted(reach.students, 'student')}`
              : isForNoStudent
                ? 'Staff, and no student'
                : groups.length === 0
                  ? counted(reach.students, 'student')
                  : `${inside.length} of ${counted(groups.length, 'group')}, ${counted(reach.students, 'student')}`}
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
            No group sets yet. <ButtonLink to="../groups/new">Create group set</ButtonLink>
          </p>
        )}
        <WhoCards
          target={target}
          sets={sets}
          mayBeCommon={allowed.includes('common') && (!isReleased || target.mode === 'common')}
          onChange={onChange}
        />
        {[...bySet].map(([setId, own]) => (
          <SetGroups
            key={setId}
            name={bySet.size > 1 ? (sets.find((set) => set.id === setId)?.name ?? '') : null}
            groups={own}
            isFixed={!plainSets.has(setId)}
            onToggle={(groupId) =>
              onChange(
                toggleGroup(
                  target,
                  setId,
                  groupId,
                  own.map((group) => group.groupId),
                ),
              )
            }
          />
        ))}
        {target.mode === 'common' && !isClass && !isForNoStudent && reach && (
          <NamedPart
            says="Also"
            verb="Add a student…"
            people={reach.named}
            onChange={(id, isIn) => onChange(withPerson(target, id, isIn))}
          />
        )}
        {reach && !isForNoStudent && (
          <NamedPart
            says="Except"
            verb="Exclude someone…"
            people={reach.leftOut}
            onChange={(id, isOut) => onChange(leaveOut(target, id, isOut))}
          />
        )}
        <div className="row">
          {outside.length > 0 && (
            <Tag $look="needs">
              {outside.length} {target.outsiders === 'hidden' ? 'see nothing' : 'see it locked'}
            </Tag>
          )}
          {several.length > 0 && (
            <Tag $look="needs">{counted(several.length, 'student')} will get more than one copy</Tag>
          )}
          {empty.length > 0 && (
            <Tag $look="warn">
              {empty.length === 1 ? `${sure(empty[0]).name} is empty` : `${empty.length} groups are empty`}
            </Tag>
          )}
        </div>
        {several.length > 0 && (
          <People
            says="Who gets more than one copy"
            people={several.map(({ name, groups: own }) => ({
              name,
              why: `A copy and a mark in each: ${own.join(', ')}.`,
            }))}
          />
        )}
        {outside.length > 0 && (
          <People
            says="Who is outside, and why"
            people={outside.map(({ name, why }) => ({ name, why: why.slice(1, 2).join(' ') }))}
          />
        )}
        {!isClass && (
          <Sentence>
            Others in the class
            <Choice
              label="What others see"
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

interface PeopleProps {
  readonly says: string;
  readonly people: readonly { readonly name: string; readonly why: string }[];
}

/** The first of some people, each with the reason why they are here; folded away until they are asked for. */
function People({ says, people }: PeopleProps) {
  return (
    <Fold>
      <summary>{says}</summary>
      <ul>
        {people.slice(0, 40).map((person, at) => (
          <li key={at}>
            <b>{person.name}</b> <Muted>{person.why}</Muted>
          </li>
        ))}
        {people.length > 40 && <li>and {people.length - 40} more</li>}
      </ul>
    </Fold>
  );
}

interface SetGroupsProps {
  /** Said where there are several sets; null: there is one. */
  readonly name: string | null;
  readonly groups: ReachView['groups'];
  /** A saved audience says which of them are in. */
  readonly isFixed: boolean;
  readonly onToggle: (groupId: GroupId) => void;
}

/** The groups of one set, each in or out at a press. */
function SetGroups({ name, groups, isFixed, onToggle }: SetGroupsProps) {
  const out = groups.filter((group) => !group.isIn).length;
  return (
    <Toggles role="group" aria-label={name === null ? 'Groups it is released to' : `Groups of ${name}`}>
      {name !== null && <b>{name}</b>}
      {groups.map((group) => (
        <button
          key={group.groupId}
          type="button"
          aria-pressed={group.isIn}
          disabled={isFixed}
          aria-label={group.name}
          title={group.name}
          style={hueOfGroup(group.number)}
          onClick={() => onToggle(group.groupId)}
        >
          <Emblem
            number={group.number}
            size={26}
            look={!group.isIn ? 'line' : group.members === 0 ? 'dash' : 'solid'}
          />
        </button>
      ))}
      <Small>
        {isFixed ? 'As the audience says' : out === 0 ? 'Press a group to skip it' : `${out} skipped`}
      </Small>
    </Toggles>
  );
}
