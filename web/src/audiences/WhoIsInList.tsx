import { styled } from 'styled-components';
import type { AudienceMembers } from '@jigsaw/contract/audiences';
import type { TermNames } from '@jigsaw/core/audiences';
import { sayTerm } from '@jigsaw/core/audiences';
import { groupedBy } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { Button, Emblem, Muted, PersonName, Tag } from '../look/index.js';

const Side = styled.section`
  padding: 14px var(--s-4);
  overflow: auto;
  min-height: 0;
  border-left: var(--hair);
  background: var(--paper);
  h2 {
    font: var(--h-17);
  }
  h3 {
    margin: 16px 0 4px;
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
  }
  h3 span {
    font-weight: 400;
  }
  section li {
    padding: 4px 0;
    border-bottom: var(--hair);
    content-visibility: auto;
    contain-intrinsic-size: auto 26px;
  }
  ul.groups {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    margin-top: 10px;
  }
  ul.groups li {
    display: flex;
    align-items: center;
    gap: 5px;
  }
  @media (max-width: 900px) {
    border-left: 0;
    border-top: var(--hair);
  }
`;
const roles = { instructor: 'Instructor', assistant: 'Assistant', observer: 'Observer' } as const;
/** Of more groups the number says enough. */
const mostGroupsShown = 24;

interface WhoIsInListProps {
  readonly members: AudienceMembers;
  readonly names: TermNames;
  /** null: the reader writes to no one. */
  readonly onWrite: (() => void) | null;
}

/** Who is in an audience now, each with the line that says so, and who is removed by which. */
export function WhoIsInList({ members, names, onWrite }: WhoIsInListProps) {
  const { people, removed, groups } = members;
  return (
    <Side aria-label="Who is in it now" tabIndex={0}>
      <h2 aria-live="polite">
        {people.length === 0 ? 'No one is in it now' : `${counted(people.length, 'person', 'people')} now`}
      </h2>
      {people.length === 0 && (
        <Muted>What is released to it reaches no one until a line finds someone.</Muted>
      )}
      {onWrite && people.length > 0 && (
        <p style={{ marginTop: 6 }}>
          <Button isSmall onPress={onWrite}>
            {people.length === 1 ? 'Write to this person…' : `Write to these ${people.length}…`}
          </Button>
        </p>
      )}
      {groups.length > 0 && (
        <ul className="groups" aria-label={counted(groups.length, 'group')}>
          {groups.slice(0, mostGroupsShown).map((group) => (
            <li key={group.groupId}>
              <Emblem number={group.number} size={18} />
              {group.name}
            </li>
          ))}
          {groups.length > mostGroupsShown && <li>and {groups.length - mostGroupsShown} more</li>}
        </ul>
      )}
      <People people={people} names={names} />
      {removed.length > 0 && (
        <>
          <h2 style={{ marginTop: 20 }}>{counted(removed.length, 'person', 'people')} removed</h2>
          <People people={removed} names={names} />
        </>
      )}
    </Side>
  );
}

/** By the line that says so, in the order of the lines; people who are named themselves together. */
function People({ people, names }: Pick<AudienceMembers, 'people'> & { readonly names: TermNames }) {
  const byLine = groupedBy(people, ({ by }) => (by.kind === 'person' ? 'By name' : sayTerm(by, names)));
  return [...byLine].map(([line, own]) => (
    <section key={line} aria-label={line}>
      <h3>
        {line} <span>{own.length}</span>
      </h3>
      <ul>
        {own.map(({ enrolmentId, name, reading, role }) => (
          <li key={enrolmentId}>
            <PersonName name={name} reading={reading} />{' '}
            {role !== 'student' && <Tag $look="plain">{roles[role]}</Tag>}
          </li>
        ))}
      </ul>
    </section>
  ));
}
