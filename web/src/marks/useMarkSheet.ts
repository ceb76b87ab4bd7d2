import { useMemo, useState } from 'react';
import type { AdjustmentShape, MarkView } from '@jigsaw/contract/marks';
import { memberMark, missingIn, netMark, readPoints, sayMissing, unitMark } from '@jigsaw/core/marks';
import type { PersonMark } from '@jigsaw/core/marks';
import { counted } from '@jigsaw/core/text';
import { useNotice } from '../look/index.js';
import { mergeParts, useAct, useVersionedDraft } from '../page/index.js';
import { useRecallMarksMutation, useReleaseMarksMutation, useSaveMarkMutation } from './marksApi.js';
import { bodyOf, sayDisputed, sheetOf, shownIn, writtenFrom, writtenIn } from './sheet.js';
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

  const [save] = useSaveMarkMutation();
  const notice = useNotice();
  const recall = useAct(useRecallMarksMutation(), { refused: (refusal) => draft.dispute(refusal) });
  const release = useAct(useReleaseMarksMutation(), {
    says: () => `Released to ${whom}`,
    undo:
      ({ version }) =>
      () =>
        recall({ copyId: copy.id, unit, version }),
    undoLabel: 'Recall it',
    refused: (refusal) => draft.dispute(refusal),
    isRefusalShown: true,
  });
  const now = useMemo(() => ({ value: writtenIn(mark), version: mark.version }), [mark]);
  const draft = useVersionedDraft<Written>({
    begin: () => ({ value: writtenIn(mark), version: mark.version }),
    save: (value, version) => save({ copyId: copy.id, unit, body: bodyOf(value, version) }).unwrap(),
    read: async () => {
      const current = await reload();
      return { value: writtenIn(current), version: current.version };
    },
    inTab: {
      name: `mark ${copy.id} ${unit}`,
      pack: (value) => bodyOf(value, 0),
      unpack: writtenFrom,
    },
    merge: (base, mine, theirs) => mergeParts(base, mine, theirs, ['picks', 'adjustments']),
    now,
    onNewer: () => {
      setIsOverriding(mark.typedMark !== null);
      notice(`${mark.changedBy ?? 'Someone else'} marked this meanwhile. This is how it is now.`);
    },
  });
  const written = draft.value;
  const [markText, setMarkText] = useState(written.typedMark ?? '');
  const [isOverriding, setIsOverriding] = useState(written.typedMark !== null);
  const change = (part: Partial<Written>) => {
    release.reset();
    draft.change({ ...written, ...part });
  };
  const changeMark = (text: string) => {
    setMarkText(text);
    const read = readPoints(text, max);
    if (read.ok) change({ typedMark: read.points });
  };
  const typed = shownIn(markText, written.typedMark, max);

  const sheet = useMemo(() => sheetOf(mark, written), [mark, written]);
  const results = useMemo(
    (): ReadonlyMap<string, PersonMark> =>
      new Map(sheet.credited.map((enrolmentId) => [enrolmentId, memberMark(sheet, enrolmentId)])),
    [sheet],
  );
  const groupMark = unitMark(sheet);
  const isSettled = draft.version === mark.version && draft.state.kind === 'saved';
  // A reason that is missing is asked for when it is released; without a mark there is nothing to release.
  const missing = missingIn(sheet).find(({ code }) => code === 'mark' || code === 'adjustment-figure');
  const nameOf = (id: string) =>
    mark.members.find(({ member }) => member.enrolmentId === id)?.member.name ?? who;

  return {
    written,
    change,
    markText: typed.text,
    changeMark,
    markFault: typed.fault,
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
    net: netMark(sheet),
    ownLate: sheet.ownLate,
    results,
    /** Why it cannot be released yet. */
    lacks: missing ? sayMissing(missing, { ...sheet, rubric }, nameOf) : null,
    isReleased: isSettled && mark.state === 'released',
    /** Who releasing it again would give something else, as far as it is saved. */
    changes: isSettled ? mark.changes : [],
    isGroup,
    /** The group, or the student. */
    who,
    /** "4 students", or the student. */
    whom,
    state: draft.state,
    /** What both changed, in words. */
    disputedWith: (theirs: MarkView) =>
      draft
        .disputedWith(writtenIn(theirs))
        .map((path) => sayDisputed(path, draft.value, writtenIn(theirs), mark)),
    flush: draft.flush,
    keepMine: () => {
      release.reset();
      return draft.keepMine();
    },
    takeTheirs: async () => {
      release.reset();
      const theirs = await draft.takeTheirs();
      if (!theirs) return;
      setMarkText(theirs.typedMark ?? '');
      setIsOverriding(theirs.typedMark !== null);
    },
    release,
    releaseNow: async () => {
      if (!(await draft.flush())) return;
      const released = await release({ copyId: copy.id, unit, version: draft.seen() });
      if (released) draft.stand(released.version);
    },
    recallNow: async () => {
      if (await draft.flush()) await recall({ copyId: copy.id, unit, version: draft.seen() });
    },
  };
}
