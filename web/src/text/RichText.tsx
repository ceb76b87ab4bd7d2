import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { isSafeLink } from '@jigsaw/contract/text';
import { onlyFor } from '@jigsaw/core/release';
import type { PlaceholderValues, RichTextNode } from '@jigsaw/core/text';
import { placeholderOf, placeholderText } from '@jigsaw/core/text';

export const Prose = styled.div`
  overflow-wrap: anywhere;
  text-wrap: pretty;
  > * + * {
    margin-top: 0.55em;
  }
  ul,
  ol {
    padding-left: 1.4em;
  }
  ul {
    list-style: disc;
  }
  ol {
    list-style: decimal;
  }
  h2 {
    font: var(--h-17);
  }
  blockquote {
    margin: 0;
    padding-left: 12px;
    border-left: 2px solid var(--line-2);
    color: var(--ink-2);
  }
  a {
    text-underline-offset: 3px;
  }
`;
const Only = styled.div`
  border-left: 2px solid var(--ink);
  padding-left: 11px;
  > small {
    font: var(--t-12);
    color: var(--ink-2);
  }
`;
const Filled = styled.span`
  background: var(--hue-tint, var(--sunk));
  color: var(--hue-ink, var(--ink));
  padding: 0 4px;
  border-radius: var(--r-1);
  font-weight: 620;
`;

interface Given {
  readonly values?: PlaceholderValues | undefined;
  /** Makes the link to another page of the same wiki; null: there is no such page. Without it such words are plain. */
  readonly linkToPage?: ((pageId: string, words: ReactNode) => ReactNode) | undefined;
}

/** Rich text from its JSON, node by node: nothing that is not known here can appear on a page. */
export function RichText({ node, ...given }: { readonly node: RichTextNode } & Given) {
  return <Prose>{(node.content ?? []).map((child, at) => renderNode(child, at, given))}</Prose>;
}

function renderNode(node: RichTextNode, key: number, given: Given): ReactNode {
  const { values } = given;
  const children = (node.content ?? []).map((child, at) => renderNode(child, at, given));
  switch (node.type) {
    case 'paragraph':
      return <p key={key}>{children.length > 0 ? children : <br />}</p>;
    case 'heading':
      return <h2 key={key}>{children}</h2>;
    case 'bulletList':
      return <ul key={key}>{children}</ul>;
    case 'orderedList':
      return <ol key={key}>{children}</ol>;
    case 'listItem':
      return <li key={key}>{children}</li>;
    case 'blockquote':
      return <blockquote key={key}>{children}</blockquote>;
    case onlyFor:
      return (
        <Only key={key}>
          <small>Only for some groups</small>
          {children}
        </Only>
      );
    case 'horizontalRule':
      return <hr key={key} />;
    case 'hardBreak':
      return <br key={key} />;
    case 'placeholder':
      return (
        <span key={key}>
          {marked(
            node,
            <Filled>
              {values ? placeholderText(placeholderOf(node), values) : sayPlaceholder(placeholderOf(node))}
            </Filled>,
            given,
          )}
        </span>
      );
    case 'text':
      return <span key={key}>{marked(node, node.text, given)}</span>;
    default:
      return null;
  }
}

export const sayPlaceholder = (what: ReturnType<typeof placeholderOf>): string =>
  ({ 'group-name': 'group’s name', 'group-members': 'group’s members', 'group-number': 'group’s number' })[
    what
  ];

function marked(node: RichTextNode, content: ReactNode, { linkToPage }: Given): ReactNode {
  return (node.marks ?? []).reduce<ReactNode>((inner, mark) => {
    if (mark.type === 'bold') return <b>{inner}</b>;
    if (mark.type === 'italic') return <i>{inner}</i>;
    const pageId = mark.attrs?.['pageId'];
    if (mark.type === 'pageLink' && typeof pageId === 'string') return linkToPage?.(pageId, inner) ?? inner;
    const href = mark.attrs?.['href'];
    if (mark.type === 'link' && typeof href === 'string' && isSafeLink(href)) {
      return (
        <a href={href} rel="noreferrer noopener" target="_blank">
          {inner}
        </a>
      );
    }
    return inner;
  }, content);
}
