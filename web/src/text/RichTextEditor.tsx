import { EditorContent, useEditor } from '@tiptap/react';
import type { Editor } from '@tiptap/react';
import { Bold, Heading, Italic, List, ListOrdered } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { ToggleButton, Toolbar } from 'react-aria-components';
import { styled } from 'styled-components';
import { onlyFor } from '@jigsaw/core/release';
import type { RichTextNode } from '@jigsaw/core/text';
import { Button, Choice } from '../look/index.js';
import { Prose, sayPlaceholder } from './RichText.js';
import type { NamedGroup } from './linesFor.js';
import { LineGroups } from './linesFor.js';
import { asContent, briefExtensions, clean, extensions } from './written.js';

const Box = styled.div`
  border: 1px solid var(--edge);
  border-radius: var(--r-2);
  background: var(--surface);
  display: flex;
  flex-direction: column;
  min-height: 0;
  &:focus-within {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
`;
const Tools = styled(Toolbar)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
  min-height: 34px;
  padding: 2px 6px;
  border-bottom: var(--hair);
  font: var(--t-12);
  color: var(--ink-2);
  .grow {
    flex: 1;
  }
`;
const Tool = styled(ToggleButton)`
  display: grid;
  place-items: center;
  width: 30px;
  height: 28px;
  border: 0;
  border-radius: var(--r-1);
  background: none;
  color: var(--ink);
  cursor: pointer;
  &[data-hovered] {
    background: var(--wash);
  }
  @media (max-width: 700px) {
    width: 44px;
    height: 44px;
  }
  &[data-selected] {
    background: var(--ink);
    color: var(--on-ink);
  }
`;
const Area = styled(Prose)`
  flex: 1;
  min-height: 0;
  overflow: auto;
  cursor: text;
  .tiptap {
    outline: 0;
    min-height: 100%;
    padding: 9px 12px;
    font: 14px/21px var(--font-text);
  }
  .tiptap > * + * {
    margin-top: 7px;
  }
  [data-page] {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  [data-placeholder^='group-'] {
    font: 600 13px/18px var(--font-text);
    background: var(--sunk);
    border: 1px dashed var(--edge);
    border-radius: var(--r-1);
    padding: 0 5px;
    white-space: nowrap;
  }
`;

interface EditorProps {
  readonly label: string;
  readonly value: RichTextNode;
  readonly onChange: (value: RichTextNode) => void;
  readonly minHeight?: number;
  /** Offers the blanks that each group's copy fills in. */
  readonly hasPlaceholders?: boolean;
  /** Offers lines that only some of these read. */
  readonly groups?: readonly NamedGroup[];
  /** Pages that chosen words can be made to lead to. */
  readonly pages?: readonly { readonly id: string; readonly title: string }[];
  readonly foot?: ReactNode;
  /** Where a press opened the editor, one writes on at once, at the end of what is there. */
  readonly takesFocus?: boolean;
}

/** A value that comes from outside (another window, an undo) replaces the text only while no one types in it. */
export default function RichTextEditor({
  label,
  value,
  onChange,
  minHeight = 160,
  hasPlaceholders,
  groups,
  pages,
  foot,
  takesFocus = false,
}: EditorProps) {
  const latest = useRef(onChange);
  const typed = useRef(value);
  useEffect(() => {
    latest.current = onChange;
  });
  const editor = useEditor({
    extensions: groups ? briefExtensions : extensions,
    content: asContent(value),
    autofocus: takesFocus ? 'end' : false,
    editorProps: { attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': label } },
    onUpdate: ({ editor: at }) => {
      typed.current = clean(at.getJSON() as RichTextNode);
      latest.current(typed.current);
    },
  });
  useEffect(() => {
    if (value === typed.current || editor.isFocused) return;
    typed.current = value;
    editor.commands.setContent(asContent(value), { emitUpdate: false });
  }, [value, editor]);
  return (
    <LineGroups value={groups ?? noGroups}>
      <Box>
        <EditorTools
          editor={editor}
          hasPlaceholders={hasPlaceholders ?? false}
          hasLines={(groups ?? noGroups).length > 1}
          pages={pages ?? []}
        />
        <Area style={{ minHeight }} onClick={() => editor.commands.focus()}>
          <EditorContent editor={editor} style={{ minHeight: 'inherit' }} />
        </Area>
        {foot}
      </Box>
    </LineGroups>
  );
}

const noGroups: readonly NamedGroup[] = [];

function EditorTools({
  editor,
  hasPlaceholders,
  hasLines,
  pages,
}: {
  readonly editor: Editor;
  readonly hasPlaceholders: boolean;
  readonly hasLines: boolean;
  readonly pages: NonNullable<EditorProps['pages']>;
}) {
  const [, redraw] = useState(0);
  useEffect(() => {
    const onTransaction = () => redraw((count) => count + 1);
    editor.on('transaction', onTransaction);
    return () => {
      editor.off('transaction', onTransaction);
    };
  }, [editor]);
  const tool = (name: string, label: string, icon: ReactNode, toggle: () => void) => (
    <Tool aria-label={label} isSelected={editor.isActive(name)} onChange={toggle}>
      {icon}
    </Tool>
  );
  /** The chosen words lead there; without any, the page's title is put in. */
  const linkTo = (pageId: string) => {
    const marks = [{ type: 'pageLink', attrs: { pageId } }];
    const title = pages.find((page) => page.id === pageId)?.title ?? '';
    const chain = editor.chain().focus();
    if (editor.state.selection.empty)
      chain.insertContent({ type: 'text', text: title, marks }).unsetMark('pageLink').run();
    else chain.setMark('pageLink', { pageId }).run();
  };
  const addLine = () =>
    editor
      .chain()
      .focus()
      .insertContent({ type: onlyFor, attrs: { groupIds: [] }, content: [{ type: 'paragraph' }] })
      .run();
  const put = (what: 'group-name' | 'group-members') =>
    editor.chain().focus().insertContent({ type: 'placeholder', attrs: { what } }).run();
  return (
    <Tools aria-label="Formatting">
      {tool('bold', 'Bold', <Bold size={15} />, () => editor.chain().focus().toggleBold().run())}
      {tool('italic', 'Italic', <Italic size={15} />, () => editor.chain().focus().toggleItalic().run())}
      {tool('bulletList', 'List', <List size={15} />, () => editor.chain().focus().toggleBulletList().run())}
      {tool('orderedList', 'Numbered list', <ListOrdered size={15} />, () =>
        editor.chain().focus().toggleOrderedList().run(),
      )}
      {tool('heading', 'Heading', <Heading size={15} />, () =>
        editor.chain().focus().toggleHeading({ level: 2 }).run(),
      )}
      <span className="grow" />
      {pages.length > 0 && (
        <Choice
          label="Link to a page"
          isLabelHidden
          value={null}
          placeholder="Link to a page"
          choices={pages.map((page) => ({ id: page.id, label: page.title }))}
          onChange={(pageId) => linkTo(pageId)}
        />
      )}
      {hasLines && (
        <Button kind="quiet" isSmall isDisabled={editor.isActive(onlyFor)} onPress={addLine}>
          Line for some groups
        </Button>
      )}
      {hasPlaceholders && (
        <>
          Insert
          <Button kind="quiet" isSmall onPress={() => put('group-name')}>
            {sayPlaceholder('group-name')}
          </Button>
          <Button kind="quiet" isSmall onPress={() => put('group-members')}>
            {sayPlaceholder('group-members')}
          </Button>
        </>
      )}
    </Tools>
  );
}
