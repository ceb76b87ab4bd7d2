import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { styled } from 'styled-components';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { PageView } from '@jigsaw/contract/wiki';
import type { WikiView } from '@jigsaw/contract/wiki';
import { plainText } from '@jigsaw/core/text';
import { ProblemStrip, unshown } from '../api/index.js';
import { useKeptDraft, useAct } from '../page/index.js';
import { useMarkSeenMutation, valuesOf } from '../rooms/index.js';
import { Button, PersonName, Small, Waiting } from '../look/index.js';
import { RichText } from '../text/index.js';
import { useCourse } from '../course/index.js';
import type { Compared } from './History.js';
import { History } from './History.js';
import { useReadPageQuery, useDeletePageMutation } from './wikiApi.js';
import { Draft, Writing } from './Writing.js';
import { Comparing } from './Comparing.js';

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
  if (unshown(page) !== undefined)
    return <ProblemStrip of={page.error} onRetry={() => void page.refetch()} />;
  if (!page.currentData) return <Waiting what="the page" rows={8} />;
  return <Page head={head} page={page.currentData} pages={pages} />;
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
  const [draft, setDraft, dropDraft] = useKeptDraft<Draft | null>(`page ${page.id}`, Draft.nullable(), null);
  const [compared, setCompared] = useState<Compared | null>(null);
  const deletePage = useAct(useDeletePageMutation(), {
    says: (_page, { isDeleted }) => `${page.title} ${isDeleted ? 'deleted' : 'restored'}`,
    inverse: (asked) => ({ ...asked, isDeleted: !asked.isDeleted }),
  });
  const values = useMemo(() => valuesOf(head), [head]);
  const linkToPage = (pageId: string, words: React.ReactNode) =>
    pages.some((other) => other.id === pageId) ? <PageLink to={`?page=${pageId}`}>{words}</PageLink> : null;
  const remove = () => deletePage({ copyId: head.id, pageId: page.id, isDeleted: true });
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
              {page.mayWrite && !page.isDeleted && (
                <>
                  <Button kind="quiet" onPress={() => void remove()}>
                    Delete
                  </Button>
                  <Button
                    kind="main"
                    onPress={() => setDraft({ title: page.title, text: page.text, basedOn: page.revision })}
                  >
                    Edit
                  </Button>
                </>
              )}
              {page.mayWrite && page.isDeleted && (
                <Button
                  onPress={() => void deletePage({ copyId: head.id, pageId: page.id, isDeleted: false })}
                >
                  Restore page
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
