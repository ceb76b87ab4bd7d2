import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { useCourse } from '../course/index.js';
import { may } from '@jigsaw/core/course';
import { Button } from '../look/index.js';
import { WriteSheet } from './WriteSheet.js';

interface WriteButtonProps {
  /** “Write to Crock…” */
  readonly label: string;
  readonly people?: readonly { readonly enrolmentId: EnrolmentId; readonly name: string }[];
  readonly groups?: readonly { readonly id: GroupId; readonly name: string }[];
}

/** The way to write to the people or groups that a page shows; for those who may. */
export function WriteButton({ label, people, groups }: WriteButtonProps) {
  const { course } = useCourse();
  const navigate = useNavigate();
  const [isOpen, setOpen] = useState(false);
  const mayWrite = may(course.role, 'write-to-people') || (course.role === 'student' && groups !== undefined);
  if (!mayWrite || (people ?? groups ?? []).length === 0) return null;
  return (
    <>
      <Button isSmall onPress={() => setOpen(true)}>
        {label}
      </Button>
      {isOpen && (
        <WriteSheet
          {...(people && { people })}
          {...(groups && { groups })}
          onClose={() => setOpen(false)}
          onDone={(threadId) => {
            setOpen(false);
            // A student is shown where the replies will be; staff go on with what they do.
            if (course.role === 'student' && threadId !== null)
              void navigate(`/c/${course.id}/messages/${threadId}`);
          }}
        />
      )}
    </>
  );
}
