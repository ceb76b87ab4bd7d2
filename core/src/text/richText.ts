/** The editor's document as JSON: the only form in which rich text is stored. */
export interface RichTextNode {
  readonly type: string;
  readonly attrs?: Readonly<Record<string, unknown>> | undefined;
  readonly text?: string | undefined;
  readonly marks?:
    | readonly { readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> | undefined }[]
    | undefined;
  readonly content?: readonly RichTextNode[] | undefined;
}

export type Placeholder = 'group-name' | 'group-members' | 'group-number';

/** What the placeholders of a text stand for in one group's copy. */
export interface PlaceholderValues {
  readonly groupName: string;
  readonly groupNumber: number;
  readonly memberNames: readonly string[];
}

export const emptyText: RichTextNode = { type: 'doc', content: [{ type: 'paragraph' }] };

const blocks = new Set(['paragraph', 'heading', 'listItem', 'blockquote', 'codeBlock']);

/** The words of a text without its formatting, a line a block; placeholders read `{group-name}`, or their value if one is given. */
export function plainText(node: RichTextNode, values?: PlaceholderValues): string {
  const lines: string[] = [''];
  const write = (piece: string) => {
    lines.push((lines.pop() ?? '') + piece);
  };
  const visit = (at: RichTextNode) => {
    if (at.type === 'text') write(at.text ?? '');
    else if (at.type === 'hardBreak') lines.push('');
    else if (at.type === 'placeholder')
      write(values ? placeholderText(placeholderOf(at), values) : `{${placeholderOf(at)}}`);
    for (const child of at.content ?? []) visit(child);
    if (blocks.has(at.type) && lines.at(-1) !== '') lines.push('');
  };
  visit(node);
  return lines.join('\n').trim();
}

export function placeholderOf(node: RichTextNode): Placeholder {
  const what = node.attrs?.['what'];
  return what === 'group-members' || what === 'group-number' ? what : 'group-name';
}

export function placeholderText(what: Placeholder, values: PlaceholderValues): string {
  switch (what) {
    case 'group-name':
      return values.groupName;
    case 'group-number':
      return String(values.groupNumber);
    case 'group-members':
      return values.memberNames.join(', ');
  }
}
