import { useEffect } from 'react';
import { styled } from 'styled-components';
import { ProblemStrip } from '../api/index.js';
import { Button, Sheet, useNotice, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { useMakeSignInLinksMutation } from './rosterApi.js';

const Lines = styled.textarea`
  width: 100%;
  height: 200px;
  font: 12px/18px var(--font-mono);
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  color: var(--ink);
  padding: 8px;
  margin-top: 10px;
  white-space: pre;
`;

/** Links to hand out: each lets one person choose a password, once. */
export function SignInLinksDialog({
  courseId,
  onClose,
}: {
  readonly courseId: string;
  readonly onClose: () => void;
}) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [make, { data, error }] = useMakeSignInLinksMutation();
  useEffect(() => {
    void make(courseId);
  }, [make, courseId]);
  const text = data?.links.map((link) => `${link.name}\t${link.email}\t${link.url}`).join('\n') ?? '';
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    notice(`${data?.links.length ?? 0} links copied`);
  };
  return (
    <Sheet title="Sign-in links" onClose={onClose}>
      {error && <ProblemStrip of={error} />}
      {!data && !error && <Waiting what="the links" rows={3} />}
      {data?.links.length === 0 && <p>Everyone here has chosen a password already.</p>}
      {data && data.links.length > 0 && (
        <>
          <p>
            {data.links.length} people have no password yet. Each link works once, until{' '}
            {dates.dateTime(data.expiresAt)}; links made before no longer do. Send each person their own.
          </p>
          <Lines readOnly value={text} aria-label="Name, address and link, one person a line" />
          <footer>
            <Button kind="main" onPress={() => void copy()}>
              Copy {data.links.length} links
            </Button>
          </footer>
        </>
      )}
    </Sheet>
  );
}
