import type { MarkView } from '@jigsaw/contract/marks';
import { sayMinutes } from '@jigsaw/core/handin';
import { SumPiece, SumStrip } from './MarkSum.js';
import type { MarkSheetActs } from './useMarkSheet.js';

interface UnitSumProps {
  readonly mark: MarkView;
  readonly acts: MarkSheetActs;
}

/** From the mark of the group or the student to what each gets, before anything that differs. */
export function UnitSum({ mark, acts }: UnitSumProps) {
  const { points: max, copy } = mark;
  const { groupMark, net, isGroup, who } = acts;
  return (
    <SumStrip $height={56}>
      <SumPiece
        height={56}
        figure={
          <>
            {groupMark ?? '–'} <small>/ {max}</small>
          </>
        }
        says={
          acts.written.typedMark === null && copy.rubric ? 'from the rubric' : isGroup ? 'group mark' : 'mark'
        }
      />
      <SumPiece
        height={56}
        look={mark.lateMinutes > 0 ? 'late' : 'plain'}
        figure={mark.lateDeduction === '0' ? '0' : `−${mark.lateDeduction}`}
        says={mark.lateMinutes > 0 ? `late ${sayMinutes(mark.lateMinutes)}` : 'for lateness'}
      />
      <SumPiece
        height={56}
        look="net"
        figure={net ?? '–'}
        says={isGroup ? 'for each member' : `for ${who}`}
      />
      <div style={{ padding: '10px 28px', font: 'var(--t-12)' }}>
        {isGroup ? (
          <>
            <b>Each student: {net ?? 'that mark'} and what you adjust</b>, never above {max}.
            <br />
            Students see their own mark and your reason, never a teammate’s.
          </>
        ) : (
          <>Only {who} sees this, and only after you release it.</>
        )}
      </div>
    </SumStrip>
  );
}
