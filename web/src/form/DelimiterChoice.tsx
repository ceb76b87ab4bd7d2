import type { Delimiter } from '@jigsaw/core/files';
import { Choice } from '../look/index.js';

const delimiterWords = {
  ',': 'Split at commas',
  ';': 'Split at semicolons',
  '\t': 'Split at tabs',
  '|': 'Split at vertical bars',
} as const;
const choices = Object.entries(delimiterWords).map(([id, label]) => ({ id: id as Delimiter, label }));

export const isDelimiter = (text: string): text is Delimiter => Object.hasOwn(delimiterWords, text);

interface DelimiterChoiceProps {
  /** null: nothing could be found out yet. */
  readonly value: Delimiter | null;
  readonly onChange: (delimiter: Delimiter) => void;
}

/** What parts the cells of a file: as it was found out, for a person to correct. */
export function DelimiterChoice({ value, onChange }: DelimiterChoiceProps) {
  return (
    <Choice
      label="Column separator"
      isLabelHidden
      placeholder="Column separator"
      value={value}
      choices={choices}
      onChange={onChange}
    />
  );
}
