import { styled } from 'styled-components';
import type { RosterEntry } from '@jigsaw/contract/roster';
import { counted } from '@jigsaw/core/text';
import { ProblemStrip } from '../api/index.js';
import { Button, Sheet } from '../look/index.js';
import { useCopy } from '../page/index.js';
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

interface SignInLinksDialogProps {
  readonly courseId: string;
  /** Who have not signed in yet. */
  readonly waiting: readonly RosterEntry[];
  readonly onClose: () => void;
}

/** Links to hand out: each lets one person in to this course, once. They are made when someone asks for them. */
export function SignInLinksDialog({ courseId, waiting, onClose }: SignInLinksDialogProps) {
  const { dates } = useCourse();
  const copy = useCopy();
  const [make, { data, error, isLoading }] = useMakeSignInLinksMutation();
  const text = data?.links.map((link) => `${link.name}\t${link.email}\t${link.url}`).join('\n') ?? '';
  const noOne = data ? data.links.length === 0 : waiting.length === 0;
  return (
    <Sheet title="Sign-in links" onClose={onClose}>
      {error && <ProblemStrip of={error} />}
      {noOne && <p>Everyone has signed in already.</p>}
      {!data && waiting.length > 0 && (
        <>
          <p>
            {waiting.length === 1 ? '1 person has' : `${waiting.length} people have`} not signed in yet. Each
            link opens this course only. Earlier links still work.
          </p>
          <footer>
            <Button kind="main" isDisabled={isLoading} onPress={() => void make(courseId)}>
              {isLoading ? 'One moment…' : `Create ${counted(waiting.length, 'link')}`}
            </Button>
          </footer>
        </>
      )}
      {data && data.links.length > 0 && (
        <>
          <p>
            Send each person their own link. It works once, until {dates.dateTime(data.expiresAt)}. People who
            already have a password need to enter it.
          </p>
          <Lines readOnly value={text} aria-label="Name, email and link, one person per line" />
          <footer>
            <Button
              kind="main"
              onPress={() =>
                void copy(
                  text,
                  `${counted(data.links.length, 'link')} copied`,
                  'Select the lines and copy them.',
                )
              }
            >
              Copy {counted(data.links.length, 'link')}
            </Button>
          </footer>
        </>
      )}
    </Sheet>
  );
}
