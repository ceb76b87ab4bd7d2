import { skipToken } from '@reduxjs/toolkit/query';
import { Suspense, useEffect, useMemo } from 'react';
import { z } from 'zod';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { StoredRichText } from '@jigsaw/contract/text';
import { PageView } from '@jigsaw/contract/wiki';
import { sure } from '@jigsaw/core/lists';
import { keepBoth } from '@jigsaw/core/wiki';
import type { WikiView } from '@jigsaw/contract/wiki';
import { isProblem, problemOf, ProblemStrip } from '../api/index.js';
import { valuesOf } from '../rooms/index.js';
import { Button, Field, Small, useNotice, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { Comparison } from './Comparison.js';
import { useReadRevisionQuery, useSavePageMutation } from './wikiApi.js';

/** What is written and not saved yet, and the version that it began from. */
export const Draft = z.object({ title: z.string(), text: StoredRichText, basedOn: z.number() });
export type Draft = Readonly<z.infer<typeof Draft>>;

interface WritingProps {
  readonly head: CopyHead;
  readonly page: PageView;
  readonly pages: WikiView['pages'];
  readonly draft: Draft;
  readonly onDraft: (draft: Draft) => void;
  readonly onDone: () => void;
}

/** Writing until it is saved as a version. A version that someone saved meanwhile stands beside the text, and nothing is lost. */
export function Writing({ head, page, pages, draft, onDraft, onDone }: WritingProps) {
  const { dates } = useCourse();
  const notice = useNotice();
  const [save, { error, isLoading, reset }] = useSavePageMutation();
  const values = useMemo(() => valuesOf(head), [head]);
  const refused = isProblem(error, 'stale-write')
    ? PageView.safeParse(problemOf(error).current).data
    : undefined;
  // Known before anybody presses: the page tells of a newer version as soon as it is there.
  const newer =
    page.revision > draft.basedOn ? page : refused && refused.revision > draft.basedOn ? refused : undefined;
  const begun = useReadRevisionQuery(
    newer ? { copyId: head.id, pageId: page.id, number: draft.basedOn } : skipToken,
  );
  const submit = async (body: Draft = draft) => {
    const answer = await save({ copyId: head.id, pageId: page.id, body });
    if ('data' in answer && answer.data) {
      onDone();
      notice(`Saved as version ${answer.data.revision}`);
    }
  };
  /** On top of the version that stands beside it. */
  const saveOver = (what: Pick<Draft, 'title' | 'text'>) => {
    const next = { ...what, basedOn: newer?.revision ?? draft.basedOn };
    onDraft(next);
    void submit(next);
  };
  useEffect(() => {
    const keep = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', keep);
    return () => window.removeEventListener('beforeunload', keep);
  }, []);
  return (
    <div className="editor">
      <Field
        label="Title of the page"
        value={draft.title}
        onChange={(title) => onDraft({ ...draft, title })}
        fault={draft.title.trim() === '' ? 'Give the page a title.' : undefined}
      />
      <Suspense fallback={<Waiting what="the editor" rows={4} />}>
        <RichTextEditor
          label="Text of the page"
          takesFocus
          value={draft.text}
          onChange={(text) => onDraft({ ...draft, text })}
          pages={pages.filter((other) => other.id !== page.id)}
          minHeight={newer ? 160 : 320}
        />
      </Suspense>
      {error && !newer && <ProblemStrip of={error} />}
      {newer && (
        <ProblemStrip>
          {newer.savedBy.isYou ? 'You' : newer.savedBy.name} saved version {newer.revision} at{' '}
          {dates.time(newer.savedAt)}, while you wrote on version {draft.basedOn}. Yours is still here; below
          is what yours would change in theirs.{' '}
          <Button
            isSmall
            kind="main"
            isDisabled={isLoading || !begun.currentData}
            onPress={() => {
              const { title, text } = sure(begun.currentData);
              saveOver({
                title: draft.title === title ? newer.title : draft.title,
                text: keepBoth(text, draft.text, newer.text),
              });
            }}
          >
            Keep both
          </Button>{' '}
          <Button isSmall isDisabled={isLoading} onPress={() => saveOver(draft)}>
            Save mine
          </Button>{' '}
          <Button
            isSmall
            onPress={() => {
              reset();
              onDone();
            }}
          >
            Use theirs
          </Button>
        </ProblemStrip>
      )}
      <footer>
        <Button
          kind="main"
          isDisabled={isLoading || newer !== undefined || draft.title.trim() === ''}
          onPress={() => void submit()}
        >
          {isLoading ? 'Saving…' : `Save as version ${page.revision + 1}`}
        </Button>
        <Button kind="quiet" onPress={onDone}>
          Cancel
        </Button>
        <Small>
          {newer ? 'Choose first what happens with the newer version.' : 'Kept in this tab until you save.'}
        </Small>
      </footer>
      {newer && (
        <section aria-label="What yours changes in theirs">
          <Comparison before={newer.text} after={draft.text} values={values} />
        </section>
      )}
    </div>
  );
}
