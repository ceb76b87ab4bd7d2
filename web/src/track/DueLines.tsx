import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { CourseView } from '@jigsaw/contract/course';
import type { Home } from '@jigsaw/contract/track';
import { keyedBy } from '@jigsaw/core/lists';
import { datesIn, Small, Tag } from '../look/index.js';
import { useNow } from '../page/index.js';

const List = styled.ol`
  border: var(--hair);
  border-radius: var(--r-2);
  overflow: hidden;
  li:not(:last-child) {
    border-bottom: var(--hair);
  }
  a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 16px;
    align-items: center;
    padding: 12px 16px;
    background: var(--surface);
    text-decoration: none;
  }
  a:hover {
    background: var(--wash);
  }
  b {
    font: var(--h-17);
    overflow-wrap: anywhere;
  }
  .when {
    text-align: right;
    font: 600 13px/18px var(--font-text);
  }
  small {
    display: block;
    font-weight: 400;
  }
  @media (max-width: 700px) {
    a {
      grid-template-columns: minmax(0, 1fr);
    }
    .when {
      text-align: left;
    }
  }
`;

interface DueLinesProps {
  readonly due: Home['due'];
  readonly courses: readonly CourseView[];
}

/** What someone owes in all their courses, the first due first, each at its course's time. */
export function DueLines({ due, courses }: DueLinesProps) {
  const now = useNow(...due.map((line) => line.due));
  const courseById = keyedBy(courses, ({ id }) => id);
  return (
    <>
      <h2 id="due">Due</h2>
      <List aria-labelledby="due">
        {due.map((line) => {
          const course = courseById.get(line.courseId);
          if (!course) return null;
          const dates = datesIn(course.timeZone);
          const isOver = line.due !== null && Date.parse(line.due) < now;
          return (
            <li key={line.copyId}>
              <Link to={`/c/${line.courseId}/copies/${line.copyId}`}>
                <span>
                  <b>{line.title}</b>
                  <Small as="small">{[course.code, line.groupName].filter(Boolean).join(' · ')}</Small>
                </span>
                <span className="when">
                  {isOver && <Tag $look="needs">Late</Tag>}{' '}
                  {line.due === null ? 'No due date' : dates.dateTime(line.due)}
                  {line.isExtended && ', extended'}
                  {line.due !== null && <Small as="small">{dates.fromNow(line.due, now)}</Small>}
                </span>
              </Link>
            </li>
          );
        })}
      </List>
    </>
  );
}
