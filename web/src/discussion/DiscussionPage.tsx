import { useMemo } from 'react';
import { styled } from 'styled-components';
import { DiscussionSettings } from '@jigsaw/contract/discussion';
import type { CopyHead } from '@jigsaw/contract/rooms';
import { Brief, CopyFrame } from '../rooms/index.js';
import { Split } from '../look/index.js';
import { RubricTable } from '../rubric/index.js';
import { Shape, Met } from './Asked.js';
import Talk from './Talk.js';

const Side = styled.aside`
  overflow: auto;
  border-right: var(--hair);
  background: var(--paper);
  padding: 16px 18px 20px 26px;
  display: grid;
  gap: 14px;
  align-content: start;
  h2 {
    font: var(--h-17);
    margin-bottom: 4px;
  }
  ul.shape {
    display: grid;
    gap: 1px;
    font: var(--t-12);
  }
  ul.shape a {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 8px;
    padding: 3px 6px;
    text-decoration: none;
    border-radius: var(--r-1);
  }
  ul.shape a:hover {
    background: var(--wash);
  }
  ul.shape li[data-reply] {
    padding-left: 12px;
  }
  ul.shape b {
    font-weight: 600;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  ul.shape i {
    grid-column: 1 / -1;
    height: 3px;
    background: linear-gradient(var(--hue, var(--ink)) 0 0) left / var(--long) 100% no-repeat var(--line);
  }
  ul.shape [data-new] b::before {
    content: '';
    display: inline-block;
    width: 7px;
    height: 7px;
    margin-right: 5px;
    border-radius: 2px;
    background: var(--ink);
  }
  table {
    width: 100%;
    font: var(--t-12);
    border-collapse: collapse;
  }
  td,
  th {
    text-align: left;
    padding: 4px 0;
    border-bottom: var(--hair);
    font-weight: 500;
  }
  td:not(:first-child),
  th:not(:first-child) {
    text-align: right;
    white-space: nowrap;
    padding-left: 8px;
  }
  @media (max-width: 900px) {
    border-right: 0;
    border-bottom: 1px solid var(--ink);
    padding: 14px 16px;
    ul.shape {
      display: none;
    }
  }
`;
/** A group's talk: its shape on the left, its threads in the middle, an answer under whatever is answered. */
export default function DiscussionPage({ head }: { readonly head: CopyHead }) {
  const settings = useMemo(() => DiscussionSettings.parse(head.settings), [head.settings]);
  const isMember = head.part === 'member';
  return (
    <CopyFrame head={head}>
      <Talk head={head} settings={settings} says={says(head)}>
        {(view, posts, threads) => (
          <Split $aside="264px" $side="left">
            <Side aria-label="Requirement" data-scroller>
              <div>
                <h2>Requirement</h2>
                <Brief head={head} />
              </div>
              {head.rubric && head.points !== null && (
                <RubricTable rubric={head.rubric} points={head.points} isFolded />
              )}
              {view.met.length > 0 && <Met view={view} settings={settings} isMember={isMember} />}
              <Shape posts={posts} settings={settings} />
            </Side>
            {threads}
          </Split>
        )}
      </Talk>
    </CopyFrame>
  );
}

const says = (head: CopyHead) => ({
  begin: head.part === 'member' ? 'Your post' : 'Start a thread',
  label: 'New post',
  send: 'Post',
  empty: 'No posts yet. Write the first one.',
  none: 'No posts yet.',
  waits: 'the discussion',
  off: 'Staff start the threads here. You can reply in them.',
});
