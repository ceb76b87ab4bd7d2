import { Link, useLocation } from 'react-router';
import { styled } from 'styled-components';
import { useCourse } from '../course/index.js';

const Views = styled.nav`
  display: flex;
  align-self: stretch;
  gap: var(--s-4);
  a {
    display: flex;
    align-items: center;
    text-decoration: none;
    color: var(--ink-2);
    font: 550 14px/1 var(--font-text);
    border-bottom: 2px solid transparent;
    border-top: 2px solid transparent;
    white-space: nowrap;
  }
  a[aria-current] {
    color: var(--ink);
    border-bottom-color: var(--ink);
    font-weight: 650;
  }
`;

/** The two ways to look at marks. */
export function MarksViews() {
  const { course } = useCourse();
  const { pathname } = useLocation();
  const base = `/c/${course.id}/marks`;
  const isGradebook = pathname === `${base}/gradebook`;
  return (
    <Views aria-label="Marks">
      <Link to={base} aria-current={isGradebook ? undefined : 'page'}>
        Marking desk
      </Link>
      <Link to={`${base}/gradebook`} aria-current={isGradebook ? 'page' : undefined}>
        Gradebook
      </Link>
    </Views>
  );
}
