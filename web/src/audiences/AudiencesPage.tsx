import { NavLink, Navigate, useParams } from 'react-router';
import { styled } from 'styled-components';
import { ProblemStrip, unshown } from '../api/index.js';
import { useCourse, useReadRosterQuery } from '../course/index.js';
import { Bar, ButtonLink, Empty, Muted, Page, Small, Waiting } from '../look/index.js';
import { AudienceEditor } from './AudienceEditor.js';
import { useListAudiencesQuery } from './audiencesApi.js';
import { sayReach } from './sayReach.js';

const Columns = styled.div`
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr);
  min-height: 0;
  > nav {
    overflow: auto;
    border-right: var(--hair);
    background: var(--paper);
  }
  nav a {
    display: block;
    padding: 9px var(--s-4);
    border-bottom: var(--hair);
    text-decoration: none;
    outline-offset: -3px;
    overflow-wrap: anywhere;
  }
  nav a:hover {
    background: var(--wash);
  }
  nav a[aria-current] {
    background: var(--surface);
    box-shadow: inset 3px 0 var(--ink);
  }
  nav b,
  nav small {
    display: block;
  }
  @media (max-width: 900px) {
    display: block;
    overflow: auto;
    > nav {
      border-right: 0;
    }
  }
`;

/** Named combinations of people: the list, and one of them as sentences with who is in it. */
export function AudiencesPage() {
  const { course } = useCourse();
  const { audienceId } = useParams();
  const isStaff = course.role !== 'student';
  // Who is in them changes with every move: never what was known a minute ago.
  const list = useListAudiencesQuery(course.id, { skip: !isStaff, refetchOnMountOrArgChange: true });
  const roster = useReadRosterQuery(course.id, { skip: !isStaff });
  if (!isStaff) return <Navigate to={`/c/${course.id}/due`} replace />;
  const refused = unshown(list) ?? unshown(roster);
  if (refused !== undefined)
    return <ProblemStrip of={refused} onRetry={() => void Promise.all([list.refetch(), roster.refetch()])} />;
  if (!list.data || !roster.data) return <Waiting what="the audiences" />;
  const { audiences } = list.data;
  const mayChange = course.role === 'instructor';
  // One thing to press stands out: with an audience open, that is to save it.
  const isOpen = audienceId === 'new' || audiences.some((audience) => audience.id === audienceId);
  return (
    <Page>
      <Bar>
        <h1>Saved audiences</h1>
        <Muted>Who something goes to, under a name</Muted>
        <span className="grow" />
        <ButtonLink to={`/c/${course.id}/release`}>Back to Release</ButtonLink>
        {mayChange && (
          <ButtonLink to={`/c/${course.id}/audiences/new`} kind={isOpen ? 'plain' : 'main'}>
            New audience
          </ButtonLink>
        )}
      </Bar>
      <Columns>
        <nav aria-label="Audiences">
          {audiences.map((audience) => (
            <NavLink key={audience.id} to={`/c/${course.id}/audiences/${audience.id}`}>
              <b>{audience.name}</b>
              <Small as="small">{sayReach(audience)}</Small>
            </NavLink>
          ))}
        </nav>
        <Chosen audiences={audiences} roster={roster.data} mayChange={mayChange} />
      </Columns>
    </Page>
  );
}

function Chosen(props: Pick<Parameters<typeof AudienceEditor>[0], 'audiences' | 'roster' | 'mayChange'>) {
  const { audienceId } = useParams();
  const { audiences, mayChange } = props;
  if (audienceId === 'new' && mayChange) return <AudienceEditor key="new" audience={null} {...props} />;
  const audience = audiences.find((each) => each.id === audienceId);
  if (audience) return <AudienceEditor key={audience.id} audience={audience} {...props} />;
  return audiences.length === 0 ? (
    <Empty title="No saved audiences yet">
      Combine group sets, groups, people and what the roster says of them, such as all dairy groups without
      two people. What you release to an audience follows it.
    </Empty>
  ) : (
    <Empty title="Choose an audience">Its lines and who is in it now are shown here.</Empty>
  );
}
