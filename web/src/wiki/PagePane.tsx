import { Suspense, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { PageView } from '@jigsaw/contract/wiki';
import type { WikiView } from '@jigsaw/contract/wiki';
import type { RichTextNode } from '@jigsaw/core/text';
import { plainText } from '@jigsaw/core/text';
import { isProblem, problemOf, ProblemStrip } from '../api/index.js';
import { useKeptDraft, useAct } from '../page/index.js';
import { useMarkSeenMutation, valuesOf } from '../rooms/index.js';
import { Button, Field, PersonName, Small, useNotice, Waiting } from '../look/index.js';
import { RichText, RichTextEditor } from '../text/index.js';
import { useCourse } from '../course/index.js';
import { Comparison } from './Comparison.js';
import type { Compared } from './History.js';
import { History } from './History.js';
import {
  useReadPageQuery,
  useReadRevisionQuery,
  useSavePageMutation,
  useTakeOutPageMutation,
} from './wikiApi.js';

const Pane = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 292px;
  min-height: 0;
  @media (max-width: 1100px) {
    display: block;
    overflow: auto;
  }
`;
const Sheet = styled.article`
  overflow: auto;
  background: var(--surface);
  padding: 16px 32px 40px;
  font: 15px/24px var(--font-text);
  > header {
    display: flex;
    align-items: center;
    flex-wrap: wrap;
    gap: 6px 10px;
    padding-bottom: 10px;
    margin-bottom: 14px;
    border-bottom: var(--hair);
  }
  > header h2 {
    font: var(--h-22);
    flex: 1;
    min-width: 200px;
    overflow-wrap: anywhere;
  }
  > header p {
    width: 100%;
  }
  > div,
  > section {
    max-width: 760px;
  }
  .editor {
    display: grid;
    gap: 10px;
  }
  .editor footer {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  @media (max-width: 700px) {
    padding: 14px 16px 24px;
  }
`;
const PageLink = styled(Link)`
  text-decoration: underline dotted;
  text-underline-offset: 3px;
`;

interface PagePaneProps {
  readonly head: CopyHead;
  readonly pageId: string;
  readonly isNew: boolean;
  readonly revision: number;
  readonly pages: WikiView['pages'];
}

/** One page: as it stands, being written, or two of its versions compared. */
export function PagePane({ head, pageId, isNew, revision, pages }: PagePaneProps) {
  const page = useReadPageQuery({ copyId: head.id, pageId });
  const [markSeen] = useMarkSeenMutation();
  useEffect(() => {
    if (isNew)
      void markSeen({ copyId: head.id, body: { what: 'items', items: [{ id: pageId, version: revision }] } });
  }, [isNew, revision, pageId, head.id, markSeen]);
  if (page.error) return <ProblemStrip of={page.error} onRetry={() => void page.refetch()} />;
  if (!page.currentData) return <Waiting what="the page" rows={8} />;
  return <Page head={head} page={page.currentData} pages={pages} />;
}

/** What is written and not saved yet, and the version that it began from. */
interface Draft {
  readonly title: string;
  readonly text: RichTextNode;
  readonly basedOn: number;
}

function Page({
  head,
  page,
  pages,
}: {
  readonly head: CopyHead;
  readonly page: PageView;
  readonly pages: WikiView['pages'];
}) {
  const { dates } = useCourse();
  const [draft, setDraft, dropDraft] = useKeptDraft<Draft | null>(`page ${page.id}`, null);
  const [compared, setCompared] = useState<Compared | null>(null);
  const takeOut = useAct(useTakeOutPageMutation(), {
    says: (_page, { isOut }) => `${page.title} ${isOut ? 'taken out' : 'put back'}`,
    inverse: (asked) => ({ ...asked, isOut: !asked.isOut }),
  });
  const values = useMemo(() => valuesOf(head), [head]);
  const linkToPage = (pageId: string, words: React.ReactNode) =>
    pages.some((other) => other.id === pageId) ? <PageLink to={`?page=${pageId}`}>{words}</PageLink> : null;
  const remove = () => takeOut({ copyId: head.id, pageId: page.id, isOut: true });
  return (
    <Pane>
      <Sheet aria-label={page.title}>
        {draft ? (
          <Writing
            head={head}
            page={page}
            pages={pages}
            draft={draft}
            onDraft={setDraft}
            onDone={dropDraft}
          />
        ) : compared ? (
          <Comparing head={head} page={page} compared={compared} onBack={() => setCompared(null)} />
        ) : (
          <>
            <header>
              <h2>{page.title}</h2>
              {page.mayWrite && !page.isTakenOut && (
                <>
                  <Button kind="quiet" onPress={() => void remove()}>
                    Take out
                  </Button>
                  <Button
                    kind="main"
                    onPress={() => setDraft({ title: page.title, text: page.text, basedOn: page.revision })}
                  >
                    Write
                  </Button>
                </>
              )}
              {page.mayWrite && page.isTakenOut && (
                <Button onPress={() => void takeOut({ copyId: head.id, pageId: page.id, isOut: false })}>
                  Put the page back
                </Button>
              )}
              <p>
                <Small>
                  {page.words} words · saved {dates.dateTime(page.savedAt)} by{' '}
                  <PersonName name={page.savedBy.name} />
                </Small>
              </p>
            </header>
            {plainText(page.text) === '' ? (
              <p>
                <Small>Nothing on this page yet.</Small>
              </p>
            ) : (
              <div>
                <RichText node={page.text} values={values} linkToPage={linkToPage} />
              </div>
            )}
          </>
        )}
      </Sheet>
      <History page={page} compared={compared} onCompare={setCompared} />
    </Pane>
  );
}

interface WritingProps {
  readonly head: CopyHead;
  readonly page: PageView;
  readonly pages: WikiView['pages'];
  readonly draft: Draft;
  readonly onDraft: (draft: Draft) => void;
  readonly onDone: () => void;
}

/** Writing until it is saved as a version. A version that somebody saved meanwhile stands beside the text, and nothing is lost. */
function Writing({ head, page, pages, draft, onDraft, onDone }: WritingProps) {
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
  const submit = async (basedOn = draft.basedOn) => {
    const answer = await save({ copyId: head.id, pageId: page.id, body: { ...draft, basedOn } });
    if ('data' in answer && answer.data) {
      onDone();
      notice(`Saved as version ${answer.data.revision}`);
    }
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
            isDisabled={isLoading}
            onPress={() => {
              onDraft({ ...draft, basedOn: newer.revision });
              void submit(newer.revision);
            }}
          >
            Save mine on top of it
          </Button>{' '}
          <Button
            isSmall
            onPress={() => {
              reset();
              onDone();
            }}
          >
            Leave theirs, drop mine
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
          Leave it as it was
        </Button>
        <Small>
          {newer ? 'Say first what happens with the newer version.' : 'Kept in this tab until you save.'}
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

interface ComparingProps {
  readonly head: CopyHead;
  readonly page: PageView;
  readonly compared: Compared;
  readonly onBack: () => void;
}

/** Two versions by their words; the older one can be brought back as a new version on top. */
function Comparing({ head, page, compared, onBack }: ComparingProps) {
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
    notice(`Version ${older.number} is back, as version ${answer.data.revision}`);
    onBack();
  };
  return (
    <>
      <header>
        <h2>{page.title}</h2>
        <Button kind="quiet" onPress={onBack}>
          Back to the page
        </Button>
        {page.mayWrite && !page.isTakenOut && older.number !== page.revision && (
          <Button isDisabled={saving.isLoading} onPress={() => void bringBack()}>
            Bring back version {older.number}
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
