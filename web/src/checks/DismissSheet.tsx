import { useState } from 'react';
import { ProblemStrip } from '../api/index.js';
import { useCourse } from '../course/index.js';
import { Button, Field, Sheet, Small } from '../look/index.js';
import { useAct } from '../page/index.js';
import { useDismissCheckMutation, useTakeUpCheckMutation } from './checksApi.js';

interface DismissSheetProps {
  readonly id: string;
  readonly title: string;
  readonly onClose: () => void;
}

/** It may stay as it is, with the reason that the others who release are told. */
export function DismissSheet({ id, title, onClose }: DismissSheetProps) {
  const { course } = useCourse();
  const [reason, setReason] = useState('');
  const takeUp = useAct(useTakeUpCheckMutation());
  const dismiss = useAct(useDismissCheckMutation(), {
    says: () => 'Dismissed. It comes up again when something about it changes.',
    undo: () => () => takeUp({ courseId: course.id, id }),
    isRefusalShown: true,
  });
  const submit = async () => {
    if (await dismiss({ courseId: course.id, id, reason })) onClose();
  };
  return (
    <Sheet title="Keep it as it is" onClose={onClose}>
      <div style={{ display: 'grid', gap: 12 }}>
        {dismiss.error !== undefined && <ProblemStrip of={dismiss.error} />}
        <p>{title}</p>
        <Field
          label="Reason, for others who release here"
          value={reason}
          onChange={setReason}
          placeholder="Agreed with both groups"
          autoFocus
        />
      </div>
      <footer>
        {reason.trim() === '' && <Small>Give the reason</Small>}
        <Button kind="main" isDisabled={reason.trim() === '' || dismiss.isBusy} onPress={() => void submit()}>
          Dismiss
        </Button>
      </footer>
    </Sheet>
  );
}
