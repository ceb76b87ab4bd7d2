import { useMemo, useState } from 'react';
import type { AdjustmentShape, MarkView } from '@jigsaw/contract/marks';
import { memberMark, missingIn, personMark, sayMissing, unitMark } from '@jigsaw/core/marks';
import type { PersonMark } from '@jigsaw/core/marks';
import { counted } from '@jigsaw/core/text';
import { useAct, useVersionedDraft } from '../page/index.js';
import { useRecallMarksMutation, useReleaseMarksMutation, useSaveMarkMutation } from './marksApi.js';
import { bodyOf, faultOfMark, sheetOf, writtenIn } from './sheet.js';
import type { Written } from './sheet.js';

export type MarkSheetActs = ReturnType<typeof useMarkSheet>;

/** What is written in one sheet, what it comes to by the function that the server runs, and what can be done with it. */
export function useMarkSheet(mark: MarkView, reload: () => Promise<MarkView>) {
  const { copy, unit, points: max } = mark;
  const { rubric } = copy;
  const count = mark.members.length;
  const isGroup = unit === 'group';
  const who = isGroup ? (copy.group?.name ?? 'all') : (mark.members[0]?.member.name ?? 'the student');
  const whom = isGroup ? counted(count, 'student') : who;
  const [markText, setMarkText] = useState(mark.typedMark ?? '');
  const [isOverriding, setIsOverriding] = useState(mark.typedMark !== null);

  const [save] = useSaveMarkMutation();
  const recall = useAct(useRecallMarksMutation());
  const release = useAct(useReleaseMarksMutation(), {
    says: () => `Released to ${whom}`,
    undo: () => () => recall({ copyId: copy.id, unit }),
    undoLabel: 'Take it back',
    isRefusalShown: true,
  });
  const draft = useVersionedDraft<Written>({
    begin: () => ({ value: writtenIn(mark), version: mark.version }),
    save: (value, version) => save({ copyId: copy.id, unit, body: bodyOf(value, version) }).unwrap(),
    read: async () => {
      const current = await reload();
      return { value: writtenIn(current), version: current.version };
    },
  });
  const written = draft.value;
  const change = (part: Partial<Written>) => {
    release.reset();
    draft.change({ ...written, ...part });
  };
  const changeMark = (text: string) => {
    const tidy = text.replace(',', '.').trim();
    setMarkText(tidy);
    if (faultOfMark(tidy, max) === undefined) change({ typedMark: tidy === '' ? null : tidy });
  };

  const sheet = useMemo(() => sheetOf(mark, written), [mark, written]);
  const results = useMemo(
    (): ReadonlyMap<string, PersonMark> =>
      new Map(sheet.credited.map((enrolmentId) => [enrolmentId, memberMark(sheet, enrolmentId)])),
    [sheet],
  );
  const groupMark = unitMark(sheet);
  const isChangedSinceRelease =
    mark.releasedAt !== null && (draft.version !== mark.version || mark.state !== 'released');
  // A reason that is missing is asked for when it is released; without a mark there is nothing to release.
  const missing = missingIn(sheet).find(({ code }) => code === 'mark');

  return {
    written,
    change,
    markText,
    changeMark,
    markFault: faultOfMark(markText, max),
    isOverriding,
    override: () => setIsOverriding(true),
    backToRubric: () => {
      setIsOverriding(false);
      setMarkText('');
      change({ typedMark: null, overrideReason: '' });
    },
    adjust: (enrolmentId: string, adjustment: AdjustmentShape | null) => {
      const adjustments = new Map(written.adjustments);
      if (adjustment) adjustments.set(enrolmentId, adjustment);
      else adjustments.delete(enrolmentId);
      change({ adjustments });
    },
    groupMark,
    net: groupMark === null ? null : personMark({ groupMark, lateDeduction: mark.lateDeduction, max }).mark,
    results,
    /** Why it cannot be released yet. */
    lacks: missing ? sayMissing(missing, { ...sheet, rubric }, () => who) : null,
    isReleased: mark.releasedAt !== null && !isChangedSinceRelease,
    isGroup,
    /** The group, or the student. */
    who,
    /** "4 students", or the student. */
    whom,
    state: draft.state,
    flush: draft.flush,
    keepMine: draft.keepMine,
    takeTheirs: async () => {
      const theirs = await draft.takeTheirs();
      if (!theirs) return;
      setMarkText(theirs.typedMark ?? '');
      setIsOverriding(theirs.typedMark !== null);
    },
    release,
    releaseNow: async () => {
      if (!(await draft.flush())) return;
      const current = await reload();
      const released = await release({ copyId: copy.id, unit, version: current.version });
      if (released) draft.stand(released.version);
    },
    recallNow: () => recall({ copyId: copy.id, unit }),
  };
}
