import { Suspense } from 'react';
import { styled } from 'styled-components';
import { kinds } from '../kinds/index.js';
import { Field, Part, Waiting } from '../look/index.js';
import { RichTextEditor } from '../text/index.js';
import { AttachPart } from './AttachPart.js';
import type { Composing } from './useComposer.js';

const Kinds = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  button {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    height: var(--ctl);
    padding: 0 12px;
    border: 1px solid transparent;
    border-radius: var(--r-2);
    background: none;
    font: 550 13px/1 var(--font-text);
    cursor: pointer;
  }
  button:hover {
    background: var(--wash);
  }
  button[aria-pressed='true'] {
    border-color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--ink);
    font-weight: 650;
  }
`;

/** Its kind, its title and its brief. */
export function WhatPart({ composing }: { readonly composing: Composing }) {
  const { draft, kind, change, chooseKind, named } = composing;
  return (
    <Part>
      <header>
        <h2>What</h2>
        <p>{kind?.word ?? draft.kind}, written once for all groups</p>
      </header>
      <div>
        <div className="title">
          <Field
            label="Title"
            value={draft.title}
            onChange={(title) => change({ title })}
            fault={draft.title.trim() === '' ? 'Give it a title; until then it is not saved.' : undefined}
          />
        </div>
        {composing.activity.release === null && (
          <Kinds role="group" aria-label="Kind">
            {kinds.map((each) => (
              <button
                key={each.name}
                type="button"
                aria-pressed={each.name === draft.kind}
                onClick={() => chooseKind(each)}
                title={each.says}
              >
                <each.icon size={17} aria-hidden="true" />
                {each.word}
              </button>
            ))}
          </Kinds>
        )}
        <Suspense fallback={<Waiting what="the editor" rows={3} />}>
          <RichTextEditor
            label="Brief"
            value={draft.brief}
            onChange={(brief) => change({ brief })}
            hasPlaceholders
            groups={named}
            minHeight={110}
          />
        </Suspense>
        <AttachPart composing={composing} />
      </div>
    </Part>
  );
}
