import { ArrowRight } from 'lucide-react';
import { useNavigate } from 'react-router';
import type { MarkView } from '@jigsaw/contract/marks';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, Small, Spoken, Tag, FootBar } from '../look/index.js';
import { saySaved } from '../page/index.js';
import type { MarkSheetActs } from './useMarkSheet.js';
import type { Next } from './useQueue.js';

interface MarkFootProps {
  readonly mark: MarkView;
  readonly acts: MarkSheetActs;
  readonly mayMark: boolean;
  /** null: nothing else is to mark. */
  readonly next: Next | null;
  /** Where the sheets of this activity are. */
}

/** Whether it is saved, who sees it, and the way on. */
export function MarkFoot({ mark, acts, mayMark, next }: MarkFootProps) {
  const { dates } = useCourse();
  const navigate = useNavigate();
  const count = mark.members.length;
  return (
    <FootBar data-acts>
      <Small role="status">{mayMark ? saySaved(acts.state, dates.time) : 'You can look but not mark'}</Small>
      {mark.releasedAt && (
        <Tag $look={acts.isReleased ? 'solid' : 'warn'}>
          {acts.isReleased
            ? `Released ${dates.dateTime(mark.releasedAt)}`
            : 'Changed since release: students see the earlier mark'}
        </Tag>
      )}
      <span className="grow" />
      {mayMark && (
        <>
          {mark.releasedAt && (
            <Button kind="quiet" onPress={() => void acts.recallNow()}>
              Recall from {counted(count, 'student')}
            </Button>
          )}
          {acts.lacks !== null && <Small>{acts.lacks}</Small>}
          <Button
            kind="main"
            isDisabled={
              acts.markFault !== undefined ||
              acts.lacks !== null ||
              acts.isReleased ||
              acts.release.isBusy ||
              count === 0
            }
            onPress={() => void acts.releaseNow()}
          >
            {acts.isReleased
              ? 'Released'
              : acts.changes.length > 0
                ? `Release changes to ${counted(acts.changes.length, 'student')}`
                : `Release to ${acts.whom}`}
          </Button>
        </>
      )}
      {next && (
        <Button onPress={() => void navigate(next.to)}>
          Next to mark<Spoken>, {next.row.student?.name ?? next.row.group?.name}</Spoken>
          <ArrowRight size={15} aria-hidden="true" />
        </Button>
      )}
    </FootBar>
  );
}
