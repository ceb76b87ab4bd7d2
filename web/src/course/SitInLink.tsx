import { styled } from 'styled-components';
import { may } from '@jigsaw/core/course';
import { sitInAddress, sitInBase } from '../api/index.js';
import { store } from '../page/index.js';
import { useCourse } from './useCourse.js';

const Anchor = styled.a`
  font: 600 12px/16px var(--font-text);
  color: var(--ink);
  text-underline-offset: 3px;
  white-space: nowrap;
  margin-left: 4px;
`;

/** Where someone came from when they sat in, in this tab. */
export const cameFromKey = 'jigsaw.sat-in-from';

/** Leads to the course as one student sees it, and remembers the way back. */
export function sitIn(enrolmentId: string, path: string): void {
  rememberWay();
  window.location.assign(sitInAddress(enrolmentId, path));
}

/** Of where the reader is, for coming back. */
export const rememberWay = (): void =>
  void store(cameFromKey, window.location.pathname + window.location.search, 'reader');

/** Whether the reader may sit in as this course's students from this page. */
export function useMaySitIn(): boolean {
  const { course } = useCourse();
  return may(course.role, 'sit-in') && sitInBase() === '';
}

interface SitInLinkProps {
  readonly enrolmentId: string;
  readonly name: string;
  /** Of the course: where to; left out: where the student comes in. */
  readonly to?: string;
}
/** A whole load, as what is kept in this page is the reader's own. Nothing for those who may not. */
export function SitInLink({ enrolmentId, name, to = '' }: SitInLinkProps) {
  const { course } = useCourse();
  if (!useMaySitIn()) return null;
  return (
    <Anchor
      href={sitInAddress(enrolmentId, `/c/${course.id}${to}`)}
      aria-label={`Sit in as ${name}`}
      title={`See this as ${name} sees it`}
      onClick={rememberWay}
    >
      Sit in
    </Anchor>
  );
}
