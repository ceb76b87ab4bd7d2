import type { BoardView } from '@jigsaw/contract/placing';
import { Choice } from '../look/index.js';

export type Kind = BoardView['attributes'][number]['kind'];

interface AttributeProps {
  readonly board: BoardView;
  readonly kinds: readonly Kind[];
  readonly value: string;
  readonly onChange: (attribute: string, as: 'category' | 'number') => void;
}

export function Attribute({ board, kinds, value, onChange }: AttributeProps) {
  const fitting = board.attributes.filter((attribute) => kinds.includes(attribute.kind));
  const choices = [...new Set([value, ...fitting.map((attribute) => attribute.name)])].map((name) => ({
    id: name,
    label: name,
  }));
  return (
    <Choice
      label="Attribute"
      isLabelHidden
      value={value}
      choices={choices}
      onChange={(name) =>
        onChange(
          name,
          fitting.find((attribute) => attribute.name === name)?.kind === 'number' ? 'number' : 'category',
        )
      }
    />
  );
}
