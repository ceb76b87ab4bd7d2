import { useState } from 'react';
import { Form, TextField } from 'react-aria-components';
import { styled } from 'styled-components';
import { Button, Input } from '../look/index.js';

const Line = styled(Form)`
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 8px;
  > :first-child {
    flex: 0 1 420px;
  }
`;
const longest = 120;

interface TitleFieldProps {
  readonly label: string;
  readonly title?: string;
  /** @returns whether it was saved; what was typed stays where it was not. */
  readonly onSave: (title: string) => Promise<boolean>;
  readonly onClose: () => void;
}

/** The title of a heading as it is typed. */
export function TitleField({ label, title = '', onSave, onClose }: TitleFieldProps) {
  const [text, setText] = useState(title);
  const [isBusy, setBusy] = useState(false);
  const isSaveable = text.trim() !== '' && !isBusy;
  const save = async () => {
    if (!isSaveable) return;
    if (text.trim() === title) return onClose();
    setBusy(true);
    const isSaved = await onSave(text);
    setBusy(false);
    if (isSaved) onClose();
  };
  return (
    <Line
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <TextField
        aria-label={label}
        autoFocus
        value={text}
        onChange={setText}
        maxLength={longest}
        onKeyDown={(event) => event.key === 'Escape' && onClose()}
      >
        <Input />
      </TextField>
      <Button type="submit" kind="main" isDisabled={!isSaveable}>
        Save
      </Button>
      <Button kind="quiet" onPress={onClose}>
        Cancel
      </Button>
    </Line>
  );
}
