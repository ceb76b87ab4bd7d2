import { NodeViewContent, NodeViewWrapper } from '@tiptap/react';
import type { ReactNodeViewProps } from '@tiptap/react';
import { use } from 'react';
import { styled } from 'styled-components';
import type { GroupId } from '@jigsaw/core/ids';
import { keyedBy } from '@jigsaw/core/lists';
import { counted } from '@jigsaw/core/text';
import { Button, Choice, Chosen, Emblem, Small, Without } from '../look/index.js';
import { LineGroups } from './linesFor.js';

const Line = styled(NodeViewWrapper)`
  border-left: 2px solid var(--ink);
  padding-left: 11px;
  > header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 6px;
    margin-bottom: 3px;
    font: var(--t-12);
    color: var(--ink-2);
  }
`;

/** One such line in the editor: who reads it, and how many do not. */
export function OnlyForLine({ node, editor, updateAttributes, getPos, deleteNode }: ReactNodeViewProps) {
  const groups = use(LineGroups);
  const named = node.attrs['groupIds'] as readonly GroupId[];
  const groupById = keyedBy(groups, (group) => group.id);
  const others = groups.filter((group) => !named.includes(group.id));
  const set = (groupIds: readonly GroupId[]) => updateAttributes({ groupIds });
  const forEveryone = () => {
    const at = getPos();
    if (at === undefined) return;
    editor
      .chain()
      .focus()
      .insertContentAt({ from: at, to: at + node.nodeSize }, node.content.toJSON() as object[])
      .run();
  };
  return (
    <Line>
      {/* What is pressed here is not where the text begins. */}
      <header contentEditable={false} onClick={(event) => event.stopPropagation()}>
        Only for
        {named.map((id) => {
          const group = groupById.get(id);
          const name = group?.name ?? 'a group that does not get this';
          return (
            <Chosen key={id}>
              {group && <Emblem number={group.number} size={18} />}
              <bdi>{name}</bdi>
              <Without what={name} onPress={() => set(named.filter((each) => each !== id))} />
            </Chosen>
          );
        })}
        {others.length > 0 && (
          <Choice
            label="Add a group that reads this line"
            isLabelHidden
            value={null}
            placeholder={named.length === 0 ? 'Choose a group' : 'and…'}
            choices={others.map((group) => ({ id: group.id, label: group.name }))}
            onChange={(id) => set([...named, id])}
          />
        )}
        <Small>{sayOthers(groups.length - others.length, others.length)}</Small>
        <Button kind="quiet" isSmall onPress={forEveryone}>
          For everyone
        </Button>
        <Button kind="quiet" isSmall onPress={deleteNode} aria-label="Delete this line">
          Delete
        </Button>
      </header>
      <NodeViewContent />
    </Line>
  );
}

/** @param readers of the groups that get this. */
function sayOthers(readers: number, others: number): string {
  if (readers === 0) return 'No one sees this line yet.';
  return others === 0
    ? 'Every group sees this line.'
    : `The other ${counted(others, 'group')} ${others === 1 ? 'does' : 'do'} not see this line.`;
}
