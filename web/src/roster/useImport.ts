import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Role } from '@jigsaw/contract/common';
import type { ImportPreview, ImportSource } from '@jigsaw/contract/import';
import type { EnrolmentId } from '@jigsaw/core/ids';
import { useCourse } from '../course/index.js';
import { isProblem, useShareSent } from '../api/index.js';
import { useNotice } from '../look/index.js';
import { habitFor, rememberColumns } from './columnHabit.js';
import { useApplyImportMutation, usePreviewImportMutation } from './rosterApi.js';
import { saySeated, useUndoRoster } from './useRosterAct.js';

type Meanings = ImportPreview['columns'][number]['meaning'][];

/** A source with what someone said of it. */
export interface Given {
  readonly source: ImportSource;
  readonly title: string;
  /** null: as guessed. */
  readonly meanings: Meanings | null;
  /** Corrected rows by line. */
  readonly mends: ReadonlyMap<number, readonly string[]>;
  /** Lines of people who are known by their number, with a new address. */
  readonly newAddresses: ReadonlySet<number>;
  /** Lines of known people who get the role that the file tells. */
  readonly newRoles: ReadonlySet<number>;
}
/** What can be said of single lines by a press, and taken back by another. */
export type SaidOfLine = 'newAddresses' | 'newRoles';

/** People on their way in: looked at again with each answer that someone gives, and imported only as they were seen. */
export function useImport(role: Role) {
  const { course } = useCourse();
  const navigate = useNavigate();
  const notice = useNotice();
  const [given, setGiven] = useState<Given | null>(null);
  // What was seen last stays in view while a correction is looked at.
  const [seen, setSeen] = useState<ImportPreview | null>(null);
  const [preview, previewing] = usePreviewImportMutation();
  const [apply, applying] = useApplyImportMutation();
  const undo = useUndoRoster();
  const shareSent = useShareSent();
  const asked = useRef(0);
  const going = useRef<{ abort(): void } | null>(null);

  const lookAt = async (next: Given) => {
    setGiven(next);
    asked.current += 1;
    const turn = asked.current;
    const asking = preview({
      courseId: course.id,
      body: { ...asSaid(next), role, meanings: next.meanings },
    });
    going.current = asking;
    const answer = await asking;
    if (!('data' in answer) || !answer.data || turn !== asked.current) return;
    const habit = next.meanings === null ? habitFor(answer.data) : null;
    if (habit) await lookAt({ ...next, meanings: habit });
    else setSeen(answer.data);
  };
  const look = (source: ImportSource, title: string) =>
    lookAt({
      source,
      title,
      meanings: null,
      mends: new Map(),
      newAddresses: new Set(),
      newRoles: new Set(),
    });
  /** The same source with more of it said; columns are what they were seen to be. */
  const say = (more: Partial<Given>) => {
    if (given && seen) void lookAt({ ...given, meanings: meaningsOf(seen), ...more });
  };
  const mend = (line: number, cells: readonly string[] | null) => {
    const mends = new Map(given?.mends);
    if (cells) mends.set(line, cells);
    else mends.delete(line);
    say({ mends });
  };
  const sayOfLines = (what: SaidOfLine, lines: readonly number[], isSo: boolean) => {
    const said = new Set(given?.[what]);
    for (const line of lines) {
      if (isSo) said.add(line);
      else said.delete(line);
    }
    say({ [what]: said });
  };
  const importPeople = async (leaveOutLines: number[], drop: EnrolmentId[]) => {
    if (!given || !seen) return;
    const meanings = meaningsOf(seen);
    const body = { ...asSaid(given), role, meanings, leaveOutLines, drop, fingerprint: seen.fingerprint };
    const answer = await apply({ courseId: course.id, body });
    if ('data' in answer && answer.data) {
      rememberColumns(seen);
      const { added, changed, dropped, changeId, seated } = answer.data;
      const said = `${added} added, ${changed} changed${dropped > 0 ? `, ${dropped} removed` : ''}${saySeated(seated)}`;
      if (changeId) notice(said, { label: 'Undo', do: () => void undo(changeId) });
      else notice(said);
      void navigate('../people');
    } else if (isProblem(answer.error, 'stale-write')) await lookAt({ ...given, meanings });
  };
  const cancel = () => {
    asked.current += 1;
    going.current?.abort(); // the server stops reading, too
    setGiven(null);
    setSeen(null);
    previewing.reset();
    applying.reset();
  };
  return {
    given,
    seen,
    isLooking: previewing.isLoading,
    /** null: nothing large is on its way to the server. */
    shareSent: previewing.isLoading ? shareSent : null,
    isBusy: previewing.isLoading || applying.isLoading,
    lookFault: previewing.error,
    fault: applying.error ?? previewing.error,
    look,
    say,
    mend,
    sayOfLines,
    importPeople,
    cancel,
  };
}

const asSaid = ({ source, mends, newAddresses, newRoles }: Given) => ({
  source,
  mends: [...mends].map(([line, cells]) => ({ line, cells: [...cells] })),
  newAddresses: [...newAddresses],
  newRoles: [...newRoles],
});
const meaningsOf = (preview: ImportPreview) => preview.columns.map((column) => column.meaning);
