import { useState } from 'react';
import type { ActivityView, ManyAct, ManyChanged } from '@jigsaw/contract/release';
import { counted } from '@jigsaw/core/text';
import { useCourse } from '../course/index.js';
import { Button, FootBar } from '../look/index.js';
import { useAct } from '../page/index.js';
import { isOut } from './activityList.js';
import { MoveSheet } from './MoveSheet.js';
import { useChangeManyMutation } from './releaseApi.js';

interface ManyFootProps {
  readonly chosen: readonly ActivityView[];
  readonly onClear: () => void;
}

const counting = (count: number) => counted(count, 'activity', 'activities');

/** What each act is taken back by. */
function inverseOf(act: ManyAct): ManyAct {
  switch (act.kind) {
    case 'move':
      return { kind: 'move', days: -act.days };
    case 'withdraw':
      return { kind: 'release-again' };
    case 'release-again':
      return { kind: 'withdraw' };
    case 'copy':
    case 'restore':
      return { kind: 'delete' };
    case 'delete':
      return { kind: 'restore' };
  }
}

function sayDone({ activities, deleted }: ManyChanged, act: ManyAct): string {
  const many = counting(activities.length + deleted.length);
  switch (act.kind) {
    case 'move':
      return `${many} moved by ${counted(Math.abs(act.days), 'day')}, ${act.days > 0 ? 'later' : 'earlier'}`;
    case 'withdraw':
      return `${many} withdrawn. What was done in them stays.`;
    case 'release-again':
      return `${many} released again`;
    case 'copy':
      return `${many} copied as drafts`;
    case 'delete':
      return `${many} deleted`;
    case 'restore':
      return `${many} restored`;
  }
}

/** What can be done to the chosen activities at once; each button says to how many it applies. */
export function ManyFoot({ chosen, onClear }: ManyFootProps) {
  const { course } = useCourse();
  const [isMoving, setMoving] = useState(false);
  const says = (answer: ManyChanged, { act: done }: { readonly act: ManyAct }) => sayDone(answer, done);
  const takeBack = useAct(useChangeManyMutation(), { says });
  const act = useAct(useChangeManyMutation(), {
    says,
    undo:
      ({ activities, deleted }, { act: done }) =>
      () =>
        takeBack({
          courseId: course.id,
          activities: [...activities, ...deleted].map(({ id, version }) => ({ id, version })),
          act: inverseOf(done),
        }),
  });
  const doIt = async (activities: readonly ActivityView[], what: ManyAct) => {
    const done = await act({
      courseId: course.id,
      activities: activities.map(({ id, version }) => ({ id, version })),
      act: what,
    });
    if (done) onClear();
  };
  const out = chosen.filter(isOut);
  const drafts = chosen.filter((activity) => activity.release === null);
  const dated = chosen.filter(({ schedule: { opens, due, closes } }) => opens ?? due ?? closes);
  return (
    <FootBar data-acts>
      <b role="status">{chosen.length} selected</b>
      <Button isDisabled={dated.length === 0 || act.isBusy} onPress={() => setMoving(true)}>
        {dated.length === 0 ? 'No dates to move' : `Move dates of ${dated.length}…`}
      </Button>
      <Button isDisabled={act.isBusy} onPress={() => void doIt(chosen, { kind: 'copy' })}>
        Copy {chosen.length}
      </Button>
      {out.length > 0 && (
        <Button isDisabled={act.isBusy} onPress={() => void doIt(out, { kind: 'withdraw' })}>
          Withdraw {out.length}
        </Button>
      )}
      {drafts.length > 0 && (
        <Button isDisabled={act.isBusy} onPress={() => void doIt(drafts, { kind: 'delete' })}>
          Delete {counted(drafts.length, 'draft')}
        </Button>
      )}
      <span className="grow" />
      <Button kind="quiet" onPress={onClear}>
        Clear selection
      </Button>
      {isMoving && (
        <MoveSheet
          activities={dated}
          isBusy={act.isBusy}
          onMove={async (days) => {
            await doIt(dated, { kind: 'move', days });
            setMoving(false);
          }}
          onClose={() => setMoving(false)}
        />
      )}
    </FootBar>
  );
}
