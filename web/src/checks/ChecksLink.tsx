import { useCourse } from '../course/index.js';
import { ButtonLink } from '../look/index.js';
import { useListChecksQuery } from './checksApi.js';

/** How many things there are to check, and the way to them; nothing as long as it is not known. */
export function ChecksLink() {
  const { course } = useCourse();
  const { data } = useListChecksQuery(course.id, { refetchOnMountOrArgChange: true });
  if (!data) return null;
  const open = data.checks.filter(({ dismissed }) => dismissed === null).length;
  return (
    <ButtonLink to={`/c/${course.id}/release/checks`}>
      {open > 0 ? `${open} to check` : 'To check'}
    </ButtonLink>
  );
}
