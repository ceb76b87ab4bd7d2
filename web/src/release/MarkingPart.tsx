import { Suspense, lazy } from 'react';
import type { ActivityDraft } from '@jigsaw/contract/release';
import { DecimalInLine, NumberInLine, Sentence } from '../form/index.js';
import type { KindOnPages } from '../kinds/index.js';
import { Button, Part, Small, Waiting } from '../look/index.js';

const RubricEditor = lazy(() => import('./RubricEditor.js'));

interface MarkingPartProps {
  readonly draft: ActivityDraft;
  readonly kind: KindOnPages | undefined;
  readonly markFor: 'group' | 'student';
  readonly onChange: (part: Partial<ActivityDraft>) => void;
}

/** Out of how much, by what, and what lateness costs. */
export function MarkingPart({ draft, kind, markFor, onChange }: MarkingPartProps) {
  const { points, rubric, latePolicy } = draft;
  const policy = (part: Partial<ActivityDraft['latePolicy']>) =>
    onChange({ latePolicy: { ...latePolicy, ...part } });
  if (points === null) {
    return (
      <Part>
        <header>
          <h2>Marking</h2>
          <p>Not marked</p>
        </header>
        <div>
          <div className="row">
            <Small>It is not on the Marking desk or in the gradebook.</Small>
            <Button isSmall onPress={() => onChange({ points: '10' })}>
              Add marking
            </Button>
          </div>
        </div>
      </Part>
    );
  }
  return (
    <Part>
      <header>
        <h2>Marking</h2>
        <p>{markFor === 'group' ? 'One mark for the group' : 'Each student has their own mark'}</p>
      </header>
      <div>
        <Sentence>
          Marked out of{' '}
          <DecimalInLine label="Points" value={points} onChange={(value) => onChange({ points: value })} />{' '}
          points
          <Button kind="quiet" isSmall onPress={() => onChange({ points: null, rubric: null })}>
            Remove marking
          </Button>
        </Sentence>
        {kind?.isHandedIn && (
          <Sentence>
            Late work loses
            <NumberInLine
              label="Percent per day started"
              value={latePolicy.stepPercent}
              onChange={(stepPercent) => policy({ stepPercent: Math.min(100, stepPercent) })}
            />
            % per day started, up to
            <NumberInLine
              label="Most percent"
              value={latePolicy.capPercent}
              onChange={(capPercent) => policy({ capPercent: Math.min(100, capPercent) })}
            />
            %. Up to
            <NumberInLine
              label="Minutes of grace"
              value={latePolicy.graceMinutes}
              onChange={(graceMinutes) => policy({ graceMinutes: Math.min(10_080, graceMinutes) })}
            />
            minutes late costs nothing; after that, lateness counts from the due time
          </Sentence>
        )}
        <Suspense fallback={<Waiting what="the rubric" rows={3} />}>
          <RubricEditor rubric={rubric} points={points} onChange={(next) => onChange({ rubric: next })} />
        </Suspense>
      </div>
    </Part>
  );
}
