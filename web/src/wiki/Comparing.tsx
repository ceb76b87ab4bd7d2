import { useMemo } from 'react';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { PageView } from '@jigsaw/contract/wiki';
import { ProblemStrip } from '../api/index.js';
import { valuesOf } from '../rooms/index.js';
import { Button, Small, useNotice, Waiting } from '../look/index.js';
import { useCourse } from '../course/index.js';
import { Comparison } from './Comparison.js';
import type { Compared } from './History.js';
import { useReadRevisionQuery, useSavePageMutation } from './wikiApi.js';

interface ComparingProps {
  readonly head: CopyHead;
  readonly page: PageView;
  readonly compared: Compared;
  readonly onBack: () => void;
}

/** Two versions by their words; the older one can be restored as a new version on top. */
export function Comparing({ head, page, compared, onBack }: ComparingProps) {
  const { dates } = useCourse();
  const notice = useNotice();
  const a = useReadRevisionQuery({ copyId: head.id, pageId: page.id, number: compared.a });
  const b = useReadRevisionQuery({ copyId: head.id, pageId: page.id, number: compared.b });
  const [save, saving] = useSavePageMutation();
  const values = useMemo(() => valuesOf(head), [head]);
  const problem = a.error ?? b.error;
  if (problem)
    return <ProblemStrip of={problem} onRetry={() => void Promise.all([a.refetch(), b.refetch()])} />;
  if (!a.currentData || !b.currentData) return <Waiting what="the two versions" />;
  const older = a.currentData;
  const bringBack = async () => {
    const answer = await save({
      copyId: head.id,
      pageId: page.id,
      body: { title: older.title, text: older.text, basedOn: page.revision },
    });
    if (!('data' in answer) || !answer.data) return;
    notice(`Version ${older.number} restored as version ${answer.data.revision}`);
    onBack();
  };
  return (
    <>
      <header>
        <h2>{page.title}</h2>
        <Button kind="quiet" onPress={onBack}>
          Back to the page
        </Button>
        {page.mayWrite && !page.isDeleted && older.number !== page.revision && (
          <Button isDisabled={saving.isLoading} onPress={() => void bringBack()}>
            Restore version {older.number}
          </Button>
        )}
        <p>
          <Small>
            <b>A</b> version {older.number}, {older.author.name}, {dates.dateTime(older.savedAt)} → <b>B</b>{' '}
            version {b.currentData.number}, {b.currentData.author.name},{' '}
            {dates.dateTime(b.currentData.savedAt)}
            {older.title !== b.currentData.title && `. Title: “${older.title}” → “${b.currentData.title}”`}
          </Small>
        </p>
      </header>
      {saving.error && <ProblemStrip of={saving.error} />}
      <section aria-label="What changed">
        <Comparison before={older.text} after={b.currentData.text} values={values} />
      </section>
    </>
  );
}
