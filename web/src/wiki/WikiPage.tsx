import { Plus } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import { v7 as uuid } from 'uuid';
import { PageId } from '@jigsaw/contract/common';
import type { CopyHead } from '@jigsaw/contract/rooms';
import type { WikiView } from '@jigsaw/contract/wiki';
import { ProblemStrip } from '../api/index.js';
import { Brief, CopyFrame } from '../rooms/index.js';
import { Button, Empty, Field, PersonName, Sheet, Small, Spoken, Waiting, Split } from '../look/index.js';
import { RubricTable } from '../rubric/index.js';
import { PagePane } from './PagePane.js';
import { useAddPageMutation, useReadWikiQuery } from './wikiApi.js';
import { counted } from '@jigsaw/core/text';

const Side = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 12px;
  overflow: auto;
  padding: 14px 0 16px;
  border-right: var(--hair);
  background: var(--paper);
  > details,
  > div,
  > h2,
  > p {
    padding: 0 18px 0 26px;
  }
  > h2 {
    font: 600 12px/16px var(--font-text);
    color: var(--ink-2);
  }
  summary {
    cursor: pointer;
    font-weight: 620;
    margin-bottom: 4px;
  }
  nav a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    padding: 5px 18px 5px 26px;
    text-decoration: none;
    outline-offset: -3px;
    overflow-wrap: anywhere;
  }
  nav a:hover {
    background: var(--wash);
  }
  nav a[aria-current] {
    background: var(--hue-tint, var(--wash-2));
    box-shadow: inset 4px 0 var(--hue, var(--ink));
    font-weight: 650;
  }
  nav small {
    font: var(--t-12);
    color: var(--ink-2);
    align-self: center;
  }
  nav a[data-new] b::before {
    content: '';
    display: inline-block;
    width: 8px;
    height: 8px;
    margin-right: 6px;
    border-radius: 2px;
    background: var(--ink);
  }
  nav b {
    font-weight: inherit;
  }
  ul li {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    font: var(--t-12);
    padding: 2px 0;
  }
  ul li > :last-child {
    white-space: nowrap;
  }
  @media (max-width: 900px) {
    border-right: 0;
    border-bottom: 1px solid var(--ink);
    nav a {
      min-height: 44px;
      align-items: center;
    }
  }
`;

/** A group's wiki: its pages on the left; the chosen one is read, written, and compared with what it was. */
export default function WikiPage({ head }: { readonly head: CopyHead }) {
  const wiki = useReadWikiQuery(head.id);
  return (
    <CopyFrame head={head}>
      {wiki.data ? (
        <Wiki head={head} wiki={wiki.data} />
      ) : wiki.error ? (
        <ProblemStrip of={wiki.error} onRetry={() => void wiki.refetch()} />
      ) : (
        <Waiting what="the wiki" rows={8} />
      )}
    </CopyFrame>
  );
}

function Wiki({ head, wiki }: { readonly head: CopyHead; readonly wiki: WikiView }) {
  const [search, setSearch] = useSearchParams();
  const [isAdding, setIsAdding] = useState(false);
  const here = wiki.pages.filter((page) => !page.isDeleted);
  const gone = wiki.pages.filter((page) => page.isDeleted);
  const chosen = wiki.pages.find((page) => page.id === search.get('page')) ?? here[0] ?? gone[0];
  const open = (pageId: string) => setSearch({ page: pageId });
  const words = here.reduce((sum, page) => sum + page.words, 0);
  const line = (page: WikiView['pages'][number]) => (
    <Link
      key={page.id}
      to={`?page=${page.id}`}
      aria-current={page === chosen ? 'page' : undefined}
      data-new={page.isNew || undefined}
    >
      <b>{page.title}</b>
      <small>
        {page.words}
        <Spoken> words{page.isNew && ', new'}</Spoken>
      </small>
    </Link>
  );
  return (
    <Split $aside="232px" $side="left">
      <Side aria-label="Pages">
        <h2>Pages</h2>
        <nav aria-label="Pages of this wiki">{here.map(line)}</nav>
        {wiki.mayWrite && (
          <div>
            <Button isSmall onPress={() => setIsAdding(true)}>
              <Plus size={14} aria-hidden="true" />
              New page
            </Button>
          </div>
        )}
        {gone.length > 0 && (
          <details>
            <summary>Deleted</summary>
            <nav aria-label="Deleted pages">{gone.map(line)}</nav>
          </details>
        )}
        <details open={head.part === 'member' && words < 200}>
          <summary>Requirement</summary>
          <Brief head={head} />
        </details>
        {head.rubric && head.points !== null && (
          <div>
            <RubricTable rubric={head.rubric} points={head.points} isFolded />
          </div>
        )}
        {wiki.writers.length > 0 && (
          <div>
            <Small>Words added, by save</Small>
            <ul aria-label="Who wrote how much">
              {wiki.writers.map(({ member, revisions, added }) => (
                <li key={member.enrolmentId}>
                  <PersonName name={member.isYou ? 'You' : member.name} />
                  <span>
                    {added} in {revisions}
                  </span>
                </li>
              ))}
            </ul>
          </div>
        )}
        <p>
          <Small>
            {words} words, {counted(here.length, 'page')}
          </Small>
        </p>
      </Side>
      {chosen ? (
        <PagePane
          key={chosen.id}
          head={head}
          pageId={chosen.id}
          isNew={chosen.isNew}
          revision={chosen.revision}
          pages={here}
        />
      ) : (
        <Empty title="No pages">{wiki.mayWrite ? 'Create the first page.' : 'No pages yet.'}</Empty>
      )}
      {isAdding && (
        <NewPage
          copyId={head.id}
          onDone={(pageId) => {
            setIsAdding(false);
            if (pageId) open(pageId);
          }}
        />
      )}
    </Split>
  );
}

function NewPage({
  copyId,
  onDone,
}: {
  readonly copyId: string;
  readonly onDone: (pageId: string | null) => void;
}) {
  const [title, setTitle] = useState('');
  const [id] = useState(() => PageId.parse(uuid()));
  const [add, { error, isLoading, data }] = useAddPageMutation();
  useEffect(() => {
    if (data) onDone(data.id);
  }, [data, onDone]);
  const submit = () => void (title.trim() !== '' && add({ copyId, body: { id, title } }));
  return (
    <Sheet title="New page" onClose={() => onDone(null)}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
      >
        {error && <ProblemStrip of={error} />}
        <Field label="Title" value={title} onChange={setTitle} autoFocus />
        <footer>
          <Button kind="main" type="submit" isDisabled={title.trim() === '' || isLoading}>
            {isLoading ? 'Creating…' : 'Create page'}
          </Button>
        </footer>
      </form>
    </Sheet>
  );
}
